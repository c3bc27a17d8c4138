// io/alteration_json.h
//
// Alterations, fittings and the base a pattern is recalculated from, as members of an order file. Members that are not
// known are kept: of an alteration or a fitting with the entry of the same id.
#pragma once

#include <optional>
#include <vector>

#include "io/member_reader.h"
#include "order/order.h"

namespace armure {

void readAlterations(MemberReader& in, const Json& doc, std::vector<Alteration>& into);
void readFittings(MemberReader& in, const Json& doc, std::vector<Fitting>& into);
void readRecalculation(MemberReader& in, const Json& doc, std::optional<Recalculation>& into);
// A base as its own file has it, too: name, date, notes, style, school, measures, made, choices.
void readBase(MemberReader& in, const Json& object, BasePattern& into);

// Into the document, in place of what stood there; nothing where there is none.
void writeAlterations(Json& doc, const std::vector<Alteration>& alterations);
void writeFittings(Json& doc, const std::vector<Fitting>& fittings);
void writeRecalculation(Json& doc, const std::optional<Recalculation>& recalculation);
void writeBase(Json& object, const BasePattern& base);

}  // namespace armure
