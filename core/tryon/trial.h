// core/tryon/trial.h
//
// Sewing the shell of a pattern and letting it come to rest on a body: first with a coarse mesh from a start laid
// round the skin, then with a fine one; or, after an edit, with the fine one at once, from where the cloth lay before.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "body/body_form.h"
#include "solid/equilibrium.h"
#include "tryon/laid_round.h"
#include "tryon/radial_body.h"
#include "tryon/sewn_pattern.h"
#include "tryon/tryon.h"

namespace armure {

inline constexpr double kPerCm = 10;  // N/cm in a N/mm

// Cloth as it lay when a trial ended; the start of the next.
struct LaidCloth {
  std::vector<std::string> pieces;  // ids of those that were worn
  SewnPattern sewn;
  std::vector<Eigen::Vector3d> positions;
  std::vector<double> pressure;  // by vertex, N/mm2
};

// Friction of a vertex: where it was put when she was dressed, its levels on hers, and what it stands against.
struct Grip {
  double y = 0, most = 0;  // mm, N
};

class Trial {
 public:
  // `pattern` must outlive the trial. Throws std::invalid_argument for a piece that cannot be meshed.
  Trial(const Pattern& pattern, const Body& body, const TryOnOptions& options);

  const Pattern& pattern() const { return pattern_; }
  const BodyForm& form() const { return form_; }
  const RadialBody& skin() const { return skin_; }
  const std::vector<LevelHeight>& heights() const { return heights_; }
  const SewnPattern& sewn() const { return laid_->sewn; }
  const Rest& rest() const { return rest_; }
  std::shared_ptr<const LaidCloth> laid() const { return laid_; }
  int steps() const { return steps_; }
  bool stopped() const { return stopped_; }

  Eigen::Vector3d at(const SewnPattern::Spot& spot) const;

 private:
  // Put on: on a firm breast a little larger than hers, and of stiff cloth. Else slack cloth over a deep breast falls
  // into flat folds, out of which it never comes. Then as it is, roughly, to go on from; and fully.
  enum class Stage { PutOn, Roughly, Fully };
  // How far from the bust point the breast goes, over the skin down to the underbust; 0 without breasts.
  struct Breast {
    Eigen::Vector3d bustPoint = Eigen::Vector3d::Zero();
    double depth = 0, reach = 0;
  };
  void rested(SewnPattern sewn, std::vector<Eigen::Vector3d> start, const std::vector<Grip>& grips, Stage stage);
  Breast breast() const;
  SewnPattern::Spacings finerOverBreasts(const LaidCloth& laid, const SewnPattern& now, double spacing) const;
  void dress(SolidScene& scene, const SewnPattern& sewn, Stage stage) const;
  SolidScene::Body touching(const SolidScene& scene, Stage stage) const;
  void holdAtWaist(SolidScene& scene, const SewnPattern& sewn) const;
  std::vector<int> openingVertices(const SewnPattern& sewn, Half half) const;
  double gapAt(double y) const;
  double firmness(double y, double angle) const;

  const Pattern& pattern_;
  const BodyForm form_;
  const RadialBody skin_;
  const std::vector<LevelHeight> heights_;
  const std::optional<double> laced_;
  const std::function<bool()> stop_;
  std::shared_ptr<const LaidCloth> laid_;
  Rest rest_;
  int steps_ = 0;
  bool stopped_ = false;
};

}  // namespace armure
