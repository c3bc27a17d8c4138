// app/cut_panel.h
//
// What is chosen of cutting beside the rules: how the layers lie, the cloth of each, cloths of the maker's own, and
// bones placed or taken away by hand. Every change is a choice of the order, with undo.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <map>

#include "app/choice_box.h"
#include "app/order_session.h"
#include "app/value_row.h"
#include "prepare/lists.h"

namespace armure {

class CutPanel : public QWidget {
  Q_OBJECT
 public:
  explicit CutPanel(OrderSession& session, QWidget* parent = nullptr);

 signals:
  void refused(const QString& why);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void addLayers();
  void addCloths();
  void addOwnCloth();
  void addBones();
  void refresh();
  void refreshLayers();
  void refreshCloths(const CutList& list);
  void refreshBones();
  void moveLayer(int by);
  void chooseCloth(const std::string& layerOrPiece, const std::string& cloth);
  void placeBone();
  void removeBone();
  void choose(const std::string& key, const std::string& value);
  ChoiceBox* clothBox(const std::string& layerOrPiece);
  std::string ownCloth() const { return clothEdited_->currentData().toString().toStdString(); }

  OrderSession& session_;
  QVBoxLayout* column_;
  QListWidget* layers_;
  QPushButton *outwards_, *inwards_;
  QVBoxLayout* clothRows_;
  std::map<std::string, std::pair<QWidget*, ChoiceBox*>> cloths_;  // by layer; and the piece picked, by its id
  ChoiceBox* clothEdited_;
  ValueRow *clothName_, *clothWidth_, *clothShrinks_, *clothPrice_, *clothApart_, *clothOffGrain_, *clothRemnant_,
      *clothNote_;
  ChoiceBox *clothLies_, *clothWay_;
  QPushButton *place_, *remove_;
  QLabel* boneHint_;
};

}  // namespace armure
