#include "alter/complaints.h"

#include <algorithm>
#include <array>

#include "alter/alter.h"
#include "alter/wish.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

// Amounts to begin with: an eighth, a quarter, half an inch.
constexpr double kEighth = 3.175, kQuarter = 6.35, kHalf = 12.7;

const std::vector<Complaint>& table() {
  using enum FitWork;
  using enum FitLine;
  static const std::vector<Complaint> kTable{
      {"top-gapes",
       "The top edge gapes in front",
       "the edge is longer than the body above the breast",
       {{TakeIn, ThroughBust, "top", "bust", kQuarter}}},
      {"back-gapes",
       "The top edge stands off behind",
       "the edge is longer than the back there",
       {{TakeIn, Back, "top", "bust", kQuarter}}},
      {"pulls-to-bust",
       "Wrinkles pull to the bust point",
       "there is too little cloth over the breast",
       {{Deeper, ThroughBust, "bust", "bust", kQuarter}}},
      {"cup-full",
       "The cup is too full",
       "the breast comes out above: the cup wants to be deeper, its edge higher",
       {{Deeper, ThroughBust, "bust", "bust", kQuarter}, {Raise, Every, "top", "top", kEighth}}},
      {"cup-empty",
       "The cup is empty",
       "it holds more than the breast",
       {{Shallower, ThroughBust, "bust", "bust", kQuarter}}},
      {"waist-low",
       "The waist sits too low",
       "above the waist it is too long; what is taken there is given below it",
       {{Raise, Every, "waist", "waist", kHalf}}},
      {"waist-high",
       "The waist sits too high",
       "above the waist it is too short; what is given there is taken below it",
       {{Lower, Every, "waist", "waist", kHalf}}},
      {"side-leans-back",
       "The side seam leans back below",
       "the back lacks what the front has too much; the seam moves forward there",
       {{Forward, Side, "waist", "hem", kQuarter}}},
      {"side-leans-forward",
       "The side seam leans forward below",
       "the front lacks what the back has too much; the seam moves back there",
       {{Backward, Side, "waist", "hem", kQuarter}}},
      {"gap-below",
       "The lacing gap is wider below",
       "the hips are too tight",
       {{LetOut, Side, "waist", "hem", kQuarter}}},
      {"gap-above",
       "The lacing gap is wider above",
       "the ribs are too tight",
       {{LetOut, Side, "top", "waist", kQuarter}}},
      {"gap-wide", "The lacing gap is too wide", "the whole is too tight", {{LetOut, Every, "top", "hem", kHalf}}},
      {"gap-shut", "It laces shut before it holds", "the whole is too wide", {{TakeIn, Every, "top", "hem", kHalf}}},
      {"rides-up", "It rides up", "the hips push it up: they want room", {{LetOut, Side, "waist", "hem", kQuarter}}},
      {"cuts-under-arm",
       "It cuts in under the arm",
       "the edge stands too high at the side",
       {{Lower, Side, "top", "top", kQuarter}}},
      {"bones-press-above",
       "Bones press at the top edge",
       "they are longer than the body gives room",
       {{Lower, Every, "top", "top", kQuarter}}},
      {"bones-press-below",
       "Bones press on the seated thighs",
       "the hem is too low",
       {{Raise, Every, "hem", "hem", kQuarter}}},
      {"shows-above",
       "The top edge lies too low",
       "it wants to stand higher",
       {{Raise, Every, "top", "top", kQuarter}}},
  };
  return kTable;
}

std::string idOf(const Seam* seam) { return seam && seam->kind == SeamKind::Plain ? seam->id : std::string(); }

bool crossesBust(const Pattern& p, const Seam& s) {
  return placeOnLine(p, s.a, level::kBust) && placeOnLine(p, s.b, level::kBust);
}

std::string throughBust(const Pattern& p) {
  for (const Seam& s : p.seams)
    if (isCup(p.pieces[s.a.piece]) && isCup(p.pieces[s.b.piece]) && p.pieces[s.a.piece].layer == "shell" &&
        crossesBust(p, s))
      return s.id;
  const Seam* first = seamOutwards(p, Part::Panel, Half::Front, 1);
  return first && crossesBust(p, *first) ? idOf(first) : std::string();
}

}  // namespace

std::span<const Complaint> complaintTable() { return table(); }

const Complaint* findComplaint(std::string_view id) {
  const auto found = std::ranges::find(table(), id, &Complaint::id);
  return found == table().end() ? nullptr : &*found;
}

std::string lineFor(const Pattern& pattern, FitLine line) {
  switch (line) {
    case FitLine::ThroughBust:
      return throughBust(pattern);
    case FitLine::Side:
      return idOf(bodiceSide(pattern));
    case FitLine::Back:
      return idOf(seamOutwards(pattern, Part::Panel, Half::Back, 1));
    case FitLine::Every:
      break;
  }
  return {};
}

std::vector<FitNote> notesFor(const Pattern& pattern, const Complaint& complaint) {
  std::vector<FitNote> notes;
  for (const Remedy& r : complaint.remedies) {
    FitNote note;
    note.complaint = complaint.id;
    note.work = r.work;
    note.line = lineFor(pattern, r.line);
    const std::vector<std::string> places = placesOn(pattern, note.line.empty() ? std::string(kEveryLine) : note.line);
    const auto known = [&](std::string_view place, std::string_view otherwise) {
      return std::string(std::ranges::find(places, place) != places.end() ? place : otherwise);
    };
    note.from = known(r.from, r.from == r.to ? r.to : kUpperEnd);
    note.to = known(r.to, r.from == r.to ? r.to : kLowerEnd);
    note.mm = r.mm;
    notes.push_back(std::move(note));
  }
  return notes;
}

}  // namespace armure
