#include "io/tracing_json.h"

#include <algorithm>

#include "quotable.h"
#include "tracing/naming_words.h"

namespace armure {
namespace {

constexpr std::string_view kTracingFormat = "armure-tracing";
constexpr int kTracingVersion = 1;
constexpr size_t kMostPieces = 400, kMostEdges = 100, kMostEdgeCurves = 4000;
constexpr double kMostAllowance = 200, kMostOpening = 1000, kMostScale = 1000;  // mm; times

template <typename Kind, size_t n>
void readWord(MemberReader& in, const Json& object, const char* member, const std::array<KindWord<Kind>, n>& table,
              Kind& into) {
  std::string said(wordOf(table, into).id), all;
  in.text(object, member, said);
  for (const KindWord<Kind>& row : table) {
    if (row.id == said) {
      into = row.kind;
      return;
    }
    all += (all.empty() ? "" : ", ") + std::string(row.id);
  }
  in.fail(member, msg("\"{}\" is not known", quotable(said)), msg("use one of {}", all));
}

void readId(MemberReader& in, const Json& object, std::string& into) {
  in.text(object, "id", into);
  if (into.empty()) in.fail("id", "is missing", "give it a short name of its own");
  if (into.size() > kLongestQuote || into.find('.') != std::string::npos || quotable(into) != into)
    in.fail("id", "cannot be one", "letters, figures and hyphens");
}

void readGrain(MemberReader& in, const Json& object, Vec2& top, Vec2& bottom) {
  const Json grain = memberOf(object, "grain");
  if (grain.is_null()) return;
  const auto a = grain.is_array() && grain.size() == 2 ? readPoint(grain[0]) : std::nullopt;
  const auto b = a ? readPoint(grain[1]) : std::nullopt;
  if (!b || distance(*a, *b) == 0)
    return in.fail("grain", "is not a line", "write [[x, y], [x, y]], its upper end first");
  top = *a;
  bottom = *b;
}

Json grainJson(Vec2 top, Vec2 bottom) { return Json::array({pointJson(top), pointJson(bottom)}); }

// A whole number; what is beyond is told by number().
void readCount(MemberReader& in, const Json& object, const char* member, int& into, int lowest, int highest) {
  double value = into;
  in.number(object, member, value, lowest, highest);
  into = static_cast<int>(value);
}

// What pieces are is written alike in both files.
template <typename Named>
void readKind(MemberReader& in, const Json& one, Named& p) {
  readWord(in, one, "half", kHalfWords, p.half);
  readWord(in, one, "part", kPartWords, p.part);
  readCount(in, one, "ordinal", p.ordinal, 0, 99);
  readCount(in, one, "copies", p.copies, 1, 99);
  readGrain(in, one, p.grainTop, p.grainBottom);
}
template <typename Named>
void writeKind(Json& out, const Named& p) {
  out["half"] = wordOf(kHalfWords, p.half).id;
  out["part"] = wordOf(kPartWords, p.part).id;
  out["ordinal"] = p.ordinal;
  out["copies"] = p.copies;
  if (p.grainTop != p.grainBottom) out["grain"] = grainJson(p.grainTop, p.grainBottom);  // else: not said
}

NamedPiece readPiece(MemberReader& in, const Json& one) {
  NamedPiece p;
  readId(in, one, p.id);
  in.text(one, "name", p.name);
  in.point(one, "at", p.at);
  readKind(in, one, p);
  in.flag(one, "mirrored", p.mirrored);
  in.list(one, "edges", kMostEdges, [&](const Json& edge) {
    NamedEdge e;
    readId(in, edge, e.id);
    in.point(edge, "from", e.from);
    readWord(in, edge, "role", kEdgeWords, e.role);
    in.number(edge, "allowance", e.allowance, 0, kMostAllowance);
    p.edges.push_back(std::move(e));
  });
  in.list(one, "levels", kMostEdges, [&](const Json& level) {
    NamedLevel l;
    readId(in, level, l.id);
    in.point(level, "a", l.a);
    in.point(level, "b", l.b);
    p.levels.push_back(std::move(l));
  });
  in.list(one, "notches", kMostEdges, [&](const Json& notch) {
    NamedNotch n;
    readId(in, notch, n.id);
    in.point(notch, "at", n.at);
    in.flag(notch, "double", n.doubled);
    p.notches.push_back(std::move(n));
  });
  in.list(one, "darts", kMostEdges, [&](const Json& dart) {
    NamedDart d;
    readId(in, dart, d.id);
    in.point(dart, "first", d.first);
    in.point(dart, "second", d.second);
    p.darts.push_back(std::move(d));
  });
  return p;
}

Json pieceJson(const NamedPiece& p) {
  Json out{{"id", p.id}, {"name", p.name}, {"at", pointJson(p.at)}};
  writeKind(out, p);
  if (p.mirrored) out["mirrored"] = true;
  for (const NamedEdge& e : p.edges)
    out["edges"].push_back({{"id", e.id},
                            {"from", pointJson(e.from)},
                            {"role", wordOf(kEdgeWords, e.role).id},
                            {"allowance", e.allowance}});
  for (const NamedLevel& l : p.levels)
    out["levels"].push_back({{"id", l.id}, {"a", pointJson(l.a)}, {"b", pointJson(l.b)}});
  for (const NamedNotch& n : p.notches) {
    out["notches"].push_back({{"id", n.id}, {"at", pointJson(n.at)}});
    if (n.doubled) out["notches"].back()["double"] = true;
  }
  for (const NamedDart& d : p.darts)
    out["darts"].push_back({{"id", d.id}, {"first", pointJson(d.first)}, {"second", pointJson(d.second)}});
  return out;
}

NamedSide readSide(MemberReader& in, const Json& object, const char* member) {
  NamedSide side;
  const Json one = memberOf(object, member);
  if (!one.is_object()) {
    in.fail(member, "is missing", "write { \"piece\": \"front\", \"edges\": [\"side\"] }");
    return side;
  }
  in.text(one, "piece", side.piece);
  const Json edges = memberOf(one, "edges");
  if (edges.is_array() && edges.size() <= kMostEdges)
    for (const Json& e : edges)
      if (e.is_string()) side.edges.push_back(e.get<std::string>());
  if (side.edges.empty()) in.fail(member, "names no edges", "list them from the upper end down");
  return side;
}

Json sideJson(const NamedSide& side) { return {{"piece", side.piece}, {"edges", side.edges}}; }

NamedSeam readSeam(MemberReader& in, const Json& one) {
  NamedSeam s;
  readId(in, one, s.id);
  in.text(one, "name", s.name);
  readWord(in, one, "kind", kSeamWords, s.kind);
  s.a = readSide(in, one, "a");
  s.b = readSide(in, one, "b");
  in.number(one, "ease", s.ease, -kMostOpening, kMostOpening);
  return s;
}

Json seamJson(const NamedSeam& s) {
  Json out{{"id", s.id}, {"name", s.name}};
  if (s.kind != SeamKind::Plain) out["kind"] = wordOf(kSeamWords, s.kind).id;
  out["a"] = sideJson(s.a);
  out["b"] = sideJson(s.b);
  if (s.ease != 0) out["ease"] = s.ease;
  return out;
}

// Cubics as [[x, y], [x, y], [x, y], [x, y]], each from where the one before ends.
Path readCurves(MemberReader& in, const Json& object, const char* member) {
  std::vector<Cubic> cubics;
  const Json list = memberOf(object, member);
  bool sound = list.is_array() && !list.empty() && list.size() <= kMostEdgeCurves;
  for (size_t i = 0; sound && i < list.size(); ++i) {
    std::array<Vec2, 4> p;
    sound = list[i].is_array() && list[i].size() == 4;
    for (size_t k = 0; sound && k < 4; ++k) {
      const auto read = readPoint(list[i][k]);
      sound = read.has_value();
      if (read) p[k] = *read;
    }
    if (sound && !cubics.empty()) sound = distance(cubics.back().p3, p[0]) < 1e-6;
    if (sound) cubics.push_back({cubics.empty() ? p[0] : cubics.back().p3, p[1], p[2], p[3]});
  }
  if (sound && Path(cubics).length() > 0) return Path(std::move(cubics));
  in.fail(member, "is no chain of curves", "write [[x, y], [x, y], [x, y], [x, y]] for each");
  return {};
}

Json curvesJson(const Path& path) {
  Json out = Json::array();
  for (const Cubic& c : path.cubics())
    out.push_back(Json::array({pointJson(c.p0), pointJson(c.p1), pointJson(c.p2), pointJson(c.p3)}));
  return out;
}

void readAnchor(MemberReader& in, const Json& object, const char* edge, const char* at, Anchor& into) {
  in.text(object, edge, into.edge);
  in.number(object, at, into.at, 0, 1e5);
}

Edge readEdge(MemberReader& in, const Json& one) {
  Edge e;
  readId(in, one, e.id);
  readWord(in, one, "role", kEdgeWords, e.role);
  in.number(one, "allowance", e.allowance, 0, kMostAllowance);
  e.path = readCurves(in, one, "curves");
  return e;
}

Dart readDart(MemberReader& in, const Json& one) {
  Dart d;
  readId(in, one, d.id);
  in.text(one, "mouth", d.mouth);
  d.legs[0] = {d.id + "-1", EdgeRole::Seam, 0, readCurves(in, one, "first")};
  d.legs[1] = {d.id + "-2", EdgeRole::Seam, 0, readCurves(in, one, "second")};
  return d;
}

Piece readShellPiece(MemberReader& in, const Json& one) {
  Piece p;
  std::string name;
  readId(in, one, p.id);
  in.text(one, "name", name);
  p.name = verbatim(name.empty() ? p.id : name);
  readKind(in, one, p);
  in.text(one, "on_fold", p.onFold);
  p.symmetry = !p.onFold.empty() ? Symmetry::OnFold : p.copies == 1 ? Symmetry::Once : Symmetry::Pair;
  in.list(one, "edges", kMostEdges, [&](const Json& e) { p.edges.push_back(readEdge(in, e)); });
  in.list(one, "darts", kMostEdges, [&](const Json& d) { p.darts.push_back(readDart(in, d)); });
  in.list(one, "levels", kMostEdges, [&](const Json& l) {
    Mark m;
    m.kind = MarkKind::Level;
    readId(in, l, m.id);
    readAnchor(in, l, "edge_a", "at_a", m.a);
    readAnchor(in, l, "edge_b", "at_b", m.b);
    p.marks.push_back(std::move(m));
  });
  in.list(one, "notches", kMostEdges, [&](const Json& n) {
    Mark m;
    m.kind = MarkKind::Notch;
    readId(in, n, m.id);
    readAnchor(in, n, "edge", "at", m.a);
    in.flag(n, "double", m.doubled);
    p.marks.push_back(std::move(m));
  });
  return p;
}

Json shellPieceJson(const Piece& p) {
  Json out{{"id", p.id}, {"name", english(p.name)}};
  writeKind(out, p);
  if (!p.onFold.empty()) out["on_fold"] = p.onFold;
  for (const Edge& e : p.edges)
    out["edges"].push_back({{"id", e.id},
                            {"role", wordOf(kEdgeWords, e.role).id},
                            {"allowance", e.allowance},
                            {"curves", curvesJson(e.path)}});
  for (const Dart& d : p.darts) {
    Json dart{{"id", d.id}, {"first", curvesJson(d.legs[0].path)}, {"second", curvesJson(d.legs[1].path)}};
    if (d.isOpen()) dart["mouth"] = d.mouth;
    out["darts"].push_back(std::move(dart));
  }
  for (const Mark& m : p.marks) {
    if (m.isLevel())
      out["levels"].push_back(
          {{"id", m.id}, {"edge_a", m.a.edge}, {"at_a", m.a.at}, {"edge_b", m.b.edge}, {"at_b", m.b.at}});
    if (!m.isNotch()) continue;
    out["notches"].push_back({{"id", m.id}, {"edge", m.a.edge}, {"at", m.a.at}});
    if (m.doubled) out["notches"].back()["double"] = true;
  }
  return out;
}

SeamSide readShellSide(MemberReader& in, const Json& seam, const char* member, const Pattern& pattern) {
  const NamedSide named = readSide(in, seam, member);
  SeamSide side;
  const auto piece = std::ranges::find(pattern.pieces, named.piece, &Piece::id);
  if (piece == pattern.pieces.end()) {
    in.fail(member, msg("there is no piece {}", quotable(named.piece)), "name one of the pieces");
    return side;
  }
  side.piece = static_cast<size_t>(piece - pattern.pieces.begin());
  // "-side": walked against the way it runs.
  for (const std::string& use : named.edges) {
    const bool reversed = use.starts_with('-');
    side.chain.push_back({use.substr(reversed ? 1 : 0), reversed});
  }
  return side;
}

Json shellSideJson(const SeamSide& side, const Pattern& pattern) {
  Json edges = Json::array();
  for (const EdgeUse& use : side.chain) edges.push_back((use.reversed ? "-" : "") + use.edge);
  return {{"piece", pattern.pieces[side.piece].id}, {"edges", std::move(edges)}};
}

// Chains whose edges do not follow each other have no path.
bool isChain(const Pattern& pattern, const SeamSide& side) {
  const Piece& p = pattern.pieces[side.piece];
  const auto end = [&](const EdgeUse& u, bool first) {
    const Path& path = p.edge(u.edge).path;
    return first != u.reversed ? path.start() : path.end();
  };
  for (const EdgeUse& u : side.chain)
    if (std::ranges::none_of(p.edges, [&](const Edge& e) { return e.id == u.edge; }) &&
        std::ranges::none_of(p.darts, [&](const Dart& d) { return d.legs[0].id == u.edge || d.legs[1].id == u.edge; }))
      return false;
  for (size_t i = 0; i + 1 < side.chain.size(); ++i)
    if (distance(end(side.chain[i], false), end(side.chain[i + 1], true)) > 1e-6) return false;
  return true;
}

}  // namespace

Result<TracingFile> parseTracing(std::string_view text, const std::string& name) {
  const Result<BoundedJson> json = parseBounded(text, name);
  if (!json.ok()) return json.problem();
  const Json& doc = json->doc;
  if (!doc.is_object() || memberOf(doc, "format") != kTracingFormat)
    return Problem{verbatim(name), "does not say what the pieces of a drawing are",
                   "armure-cli base import DRAWING writes such a file with what it guesses"};
  if (memberOf(doc, "version") != kTracingVersion)
    return Problem{verbatim(name), "is of a version this program does not know",
                   msg("it should be {}", kTracingVersion)};
  MemberReader in(name);
  TracingFile file;
  in.number(doc, "scale", file.names.scale, 1 / kMostScale, kMostScale);
  in.number(doc, "opening", file.names.opening, 0, kMostOpening);
  in.measures(doc, "made", file.names.made);
  in.list(doc, "pieces", kMostPieces, [&](const Json& one) { file.names.pieces.push_back(readPiece(in, one)); });
  in.list(doc, "seams", kMostPieces, [&](const Json& one) { file.names.seams.push_back(readSeam(in, one)); });
  for (const std::string& member : json->doubled) in.warn(member + " stands twice; the last one counts");
  if (in.problem()) return *in.problem();
  file.warnings = std::move(in).warnings();
  return file;
}

std::string tracingText(const TracingNames& names) {
  Json doc{
      {"format", kTracingFormat}, {"version", kTracingVersion}, {"scale", names.scale}, {"opening", names.opening}};
  if (!names.made.all().empty()) doc["made"] = measuresJson(names.made, {});
  doc["pieces"] = Json::array();
  for (const NamedPiece& p : names.pieces) doc["pieces"].push_back(pieceJson(p));
  doc["seams"] = Json::array();
  for (const NamedSeam& s : names.seams) doc["seams"].push_back(seamJson(s));
  return jsonText(doc);
}

void readTraced(MemberReader& in, const Json& object, TracedPieces& into) {
  const Json traced = memberOf(object, "traced");
  if (traced.is_null()) return;
  if (!traced.is_object()) return in.fail("traced", "is not an object", "it holds pieces and seams");
  in.enter("traced");
  Pattern pattern;
  in.number(traced, "opening", into.opening, 0, kMostOpening);
  in.list(traced, "pieces", kMostPieces, [&](const Json& one) { pattern.pieces.push_back(readShellPiece(in, one)); });
  if (!in.problem())
    in.list(traced, "seams", kMostPieces, [&](const Json& one) {
      Seam s;
      std::string name;
      readId(in, one, s.id);
      in.text(one, "name", name);
      s.name = verbatim(name.empty() ? s.id : name);
      readWord(in, one, "kind", kSeamWords, s.kind);
      s.a = readShellSide(in, one, "a", pattern);
      s.b = readShellSide(in, one, "b", pattern);
      double ease = 0;
      in.number(one, "ease", ease, -kMostOpening, kMostOpening);
      if (ease != 0) s.eases.push_back({"top", "hem", ease});
      if (!in.problem() && (!isChain(pattern, s.a) || !isChain(pattern, s.b)))
        in.fail("", "its edges do not follow each other", "list them in the order they are sewn");
      pattern.seams.push_back(std::move(s));
    });
  if (!in.problem()) {
    Result<Pattern> whole = finishTraced(std::move(pattern), into.opening);
    if (whole.ok()) {
      into.shell = std::make_shared<const Pattern>(std::move(whole).value());
    } else {
      in.fail("", msg("{}: {}", whole.problem().where, whole.problem().what), whole.problem().remedy);
    }
  }
  in.leave();
}

void writeTraced(Json& object, const TracedPieces& traced) {
  if (!traced) {
    object.erase("traced");
    return;
  }
  const Pattern& pattern = *traced.shell;
  Json out{{"opening", traced.opening}, {"pieces", Json::array()}, {"seams", Json::array()}};
  for (const Piece& p : pattern.pieces) out["pieces"].push_back(shellPieceJson(p));
  for (const Seam& s : pattern.seams) {
    Json seam{{"id", s.id}, {"name", english(s.name)}};
    if (s.kind != SeamKind::Plain) seam["kind"] = wordOf(kSeamWords, s.kind).id;
    seam["a"] = shellSideJson(s.a, pattern);
    seam["b"] = shellSideJson(s.b, pattern);
    if (s.ease() != 0) seam["ease"] = s.ease();
    out["seams"].push_back(std::move(seam));
  }
  object["traced"] = std::move(out);
}

}  // namespace armure
