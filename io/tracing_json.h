// io/tracing_json.h
//
// What a maker said of a drawing (tracing/naming.h) as a file, so that a program or she herself can say it again:
// JSON, schema in docs/format/tracing.schema.json. And the pieces of a base that came of it, as its file keeps them.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>

#include "io/member_reader.h"
#include "order/base.h"
#include "tracing/naming.h"

namespace armure {

struct TracingFile {
  TracingNames names;
  std::vector<std::string> warnings;
};

// `name` is the file, in Problems.
Result<TracingFile> parseTracing(std::string_view text, const std::string& name);
std::string tracingText(const TracingNames& names);

// The member "traced" of a base: pieces, seams, what stays open. Nothing where it has none; fails where the pieces are
// not sound.
void readTraced(MemberReader& in, const Json& object, TracedPieces& into);
void writeTraced(Json& object, const TracedPieces& traced);

}  // namespace armure
