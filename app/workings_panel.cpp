#include "app/workings_panel.h"

#include <QVBoxLayout>

#include "balance/walk.h"
#include "measure/measure_table.h"
#include "measure/predict.h"
#include "parts/bones/bones.h"
#include "prepare/marks.h"
#include "render/words.h"

namespace armure {
namespace {

QString sourceName(Source source) {
  switch (source) {
    case Source::Taken:
      return "taken";
    case Source::Estimated:
      return "estimated";
    case Source::Rule:
      return "rule of thumb";
    case Source::ByHand:
      return "set by hand";
    case Source::Computed:
      break;
  }
  return "";
}

QString tableOpen() { return "<table width='100%' cellspacing='0' cellpadding='2'>"; }

QString termRow(const Term& t, bool first, LengthFormat units, const Theme& theme) {
  const QString sign = t.sign == '-' ? QStringLiteral("− ") : first ? QString() : QStringLiteral("+ ");
  const QString color = (t.source == Source::Estimated ? theme.attention : theme.secondInk).name();
  return QString(
             "<tr><td>%1%2</td><td align='right'><b>%3</b></td><td style='color:%4; font-size:12px'>&nbsp;%5</td></tr>")
      .arg(sign, words(t.label, units), escaped(formatLength(t.mm, units)), color, sourceName(t.source));
}

QString workingText(const Working& w, LengthFormat units, const Theme& theme) {
  QString html = QString("<p style='color:%1'>%2</p>").arg(theme.secondInk.name(), words(w.title, units)) + tableOpen();
  for (size_t i = 0; i < w.terms.size(); ++i) html += termRow(w.terms[i], i == 0, units, theme);
  html += QString(
              "<tr><td style='border-top:1px solid %1'><b>= </b></td><td align='right' style='border-top:1px solid "
              "%1'><b>%2</b></td><td style='border-top:1px solid %1'>&nbsp;%3</td></tr></table>")
              .arg(theme.ink.name(), escaped(formatLength(w.result, units)), escaped(unitSymbol(units.unit)));
  if (!w.note.empty())
    html += QString("<p style='color:%1; font-size:12px'>%2.</p>").arg(theme.secondInk.name(), words(w.note, units));
  return html;
}

// The measure a working is about, or empty.
std::string_view measureOfKey(std::string_view key) {
  constexpr std::string_view kMeasurePrefix = "measure.";
  return key.starts_with(kMeasurePrefix) && findMeasure(key.substr(kMeasurePrefix.size()))
             ? key.substr(kMeasurePrefix.size())
             : std::string_view{};
}

QString seamText(const Order& order, const Design& d, const Seam& seam, const Theme& theme) {
  const Walk w = walk(d.pattern, seam);
  const Piece &a = d.pattern.pieces[seam.a.piece], &b = d.pattern.pieces[seam.b.piece];
  QString html = QString("<p style='color:%1'>%2: piece %3 joins piece %4, walked from the underbust notch</p>")
                     .arg(theme.secondInk.name(), words(seam.name))
                     .arg(a.number)
                     .arg(b.number) +
                 tableOpen();
  html += QString(
              "<tr style='color:%1; font-size:12px'><td>stretch</td><td align='right'>%2</td><td "
              "align='right'>%3</td><td align='right'>differ</td></tr>")
              .arg(theme.secondInk.name())
              .arg(a.number)
              .arg(b.number);
  const auto row = [&](const QString& name, double la, double lb, double off, bool bold) {
    const QString color = (std::abs(off) > limits::kLengthMm ? theme.attention : theme.ink).name();
    const QString open = bold ? "<b>" : "", close = bold ? "</b>" : "";
    html += QString(
                "<tr><td>%5%1%6</td><td align='right'>%5%2%6</td><td align='right'>%5%3%6</td><td align='right' "
                "style='color:%7'>%5%4%6</td></tr>")
                .arg(name, escaped(formatLength(la, order.units)), escaped(formatLength(lb, order.units)),
                     escaped(formatDifference(off, order.units)), open, close, color);
  };
  for (const Stretch& s : w.stretches)
    row(QString("%1 to %2").arg(escaped(s.from), escaped(s.to)).replace('_', ' '), s.lengthA, s.lengthB, s.mismatch(),
        false);
  row("whole", w.lengthA, w.lengthB, w.mismatch(), true);
  html += "</table>";
  for (const Trim& t : d.pattern.trims)
    if (t.seam == seam.id)
      html += QString("<p style='color:%1; font-size:12px'>At the %2, %3 was trimmed off the %4.</p>")
                  .arg(theme.secondInk.name(), t.atTop ? "top" : "hem",
                       escaped(formatLengthWithUnit(t.amount, {Unit::Millimetre, 8})),
                       words(d.pattern.pieces[t.piece].name).toLower());
  return html;
}

QString edgeText(const Order& order, const Design& d, size_t i, const Edge& e, const Theme& theme) {
  return QString("<p style='color:%1'>%2, %3 edge</p>")
             .arg(theme.secondInk.name(), words(d.pattern.pieces[i].name), escaped(e.id)) +
         tableOpen() +
         QString(
             "<tr><td>length of the sewn line</td><td align='right'><b>%1</b></td></tr><tr><td>allowance</td><td "
             "align='right'><b>%2</b></td></tr></table>")
             .arg(escaped(formatLengthWithUnit(e.path.length(), order.units)),
                  words(edgeNote(d.pattern, i, e), order.units));
}

QString pieceText(const Order& order, const Design& d, const Piece& p, const Theme& theme) {
  QString html = QString("<p style='color:%1'>%2, %3 of %4</p>")
                     .arg(theme.secondInk.name(), words(p.name))
                     .arg(p.number)
                     .arg(p.of) +
                 tableOpen();
  for (const LevelLine& l : p.levelLines())
    html += QString("<tr><td>%1, width%2</td><td align='right'><b>%3</b></td></tr>")
                .arg(words(d.pattern.levelName(l.level)).toLower(), p.onFold.empty() ? "" : " of the half",
                     escaped(formatLengthWithUnit(l.width(), order.units)));
  html += "</table>";
  QStringList lines;
  for (const Message& line : labelLines(p, d.rules)) lines << words(line);
  return html + QString("<p style='color:%1; font-size:12px'>%2</p>").arg(theme.secondInk.name(), lines.join(", "));
}

QString rowText(const CheckRow& r, LengthFormat units, const Theme& theme) {
  QString html = QString("<p style='color:%1'>%2</p>").arg(theme.secondInk.name(), words(r.subject));
  if (r.verdict == Verdict::Note) return html + QString("<p>%1</p>").arg(words(r.detail, units));
  const auto amount = [&](double v) {
    return r.quantity == Quantity::Length  ? escaped(formatLengthWithUnit(v, {Unit::Millimetre, 8}))
           : r.quantity == Quantity::Angle ? QString::number(v, 'f', 1) + QStringLiteral("°")
                                           : QString::number(v, 'f', 0);
  };
  if (r.kind == CheckKind::Wish)
    html += "<p>" + words(r.detail, units) + "</p>";
  else
    html += QString("<p>%1 <b>%2</b>, limit %3</p>")
                .arg(r.passes() ? "Measured" : words(r.detail, units) + ":", amount(r.amount), amount(r.limit));
  if (!r.remedy.empty()) html += QString("<p>To mend it: %1.</p>").arg(words(r.remedy, units));
  return html;
}

}  // namespace

QString measureText(const Order& order, std::string_view measure, const Theme& theme) {
  const MeasureInfo& info = *findMeasure(measure);
  const Fact fact = factOf(measure, order.measures);
  const auto lesser = [&](const QString& text) {
    return QString("<p style='color:%1; font-size:12px'>%2</p>").arg(theme.secondInk.name(), text);
  };
  QString html = QString("<p><b>%1</b>%2</p><p>%3</p>")
                     .arg(escaped(info.name),
                          info.otherNames.empty() ? QString() : QString(", also %1").arg(escaped(info.otherNames)),
                          escaped(info.how));
  if (measure == id::kWeight) {
    html += QString("<p>%1 %2 kg%3</p>")
                .arg(fact.source == Source::Taken ? "Taken:" : "Estimated:")
                .arg(fact.mm, 0, 'g', 4)
                .arg(fact.source == Source::Taken ? QString() : QStringLiteral(" ± %1").arg(fact.spread, 0, 'g', 2));
  } else {
    html += workingText(fact.working, order.units, theme);
  }
  if (fact.source == Source::Taken) {
    const Prediction expected = predict(measure, Known(order.measures));
    if (order.measures.all().size() > 2 && measure != id::kWeight)
      html += lesser(QStringLiteral("The other measures lead one to expect %1 ± %2.")
                         .arg(escaped(formatLengthWithUnit(expected.mm, order.units)),
                              escaped(formatLength(expected.spread, order.units))));
  } else if (measure != id::kWeight) {
    html += lesser(QStringLiteral("± %1, one standard deviation: two of three clients lie within it.")
                       .arg(escaped(formatLengthWithUnit(fact.spread, order.units))));
  }
  return html;
}

QString workingsText(const Order& order, const Design& design, const Selection& s, const Theme& theme) {
  QString html;
  if (const std::string_view measure = measureOfKey(s.working); !measure.empty() && !s.row)
    return measureText(order, measure, theme);
  if (s.row && *s.row < design.sheet.rows.size()) html += rowText(design.sheet.rows[*s.row], order.units, theme);
  if (!s.seam.empty() && !s.row)
    for (size_t i = 0; i < design.pattern.pieces.size(); ++i)
      if (design.pattern.pieces[i].id == s.piece)
        html += edgeText(order, design, i, design.pattern.pieces[i].edge(s.edge), theme);
  for (const Seam& seam : design.pattern.seams)
    if (seam.id == s.seam) html += seamText(order, design, seam, theme);
  if (const Working* w = design.working(s.working)) html += workingText(*w, order.units, theme);
  if (const auto bone = boneWorking(design.pattern, design.block, design.rules, s.working))
    html += workingText(*bone, order.units, theme);
  if (!s.piece.empty() && s.seam.empty() && !s.row && s.working.empty()) {
    for (size_t i = 0; i < design.pattern.pieces.size(); ++i) {
      const Piece& p = design.pattern.pieces[i];
      if (p.id == s.piece)
        html += s.edge.empty() ? pieceText(order, design, p, theme) : edgeText(order, design, i, p.edge(s.edge), theme);
    }
  }
  if (html.isEmpty())
    html = QString("<p style='color:%1'>Click on a point, a line or a piece: its arithmetic stands here.</p>")
               .arg(theme.secondInk.name());
  return html;
}

WorkingsPanel::WorkingsPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      theme_(&lightTheme()),
      text_(new SettledText),
      idle_(new QLabel),
      reduction_(new ReductionPanel(session)) {
  setObjectName("columnInside");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(18, 14, 16, 6);
  column->setSpacing(2);
  auto* heading = new QLabel("Workings");
  heading->setObjectName("heading");
  column->addWidget(heading);
  text_->setObjectName("workings");
  text_->setAccessibleName("Workings");
  heading->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
  column->addWidget(text_);
  column->addWidget(reduction_);
  idle_->setObjectName("lesser");
  idle_->setAccessibleName("Idle choices");
  idle_->setTextFormat(Qt::PlainText);
  idle_->setWordWrap(true);
  idle_->hide();
  column->addWidget(idle_);
  column->addStretch(1);
  constexpr int kPauseMs = 400;
  idleTimer_.setParent(this);
  idleTimer_.setSingleShot(true);
  idleTimer_.setInterval(kPauseMs);
  connect(&idleTimer_, &QTimer::timeout, this, &WorkingsPanel::showIdle);
  connect(&session, &OrderSession::changed, this, [this] { idleTimer_.start(); });
  connect(&session, &OrderSession::changed, this, &WorkingsPanel::refresh);
  connect(&session, &OrderSession::selectionChanged, this, &WorkingsPanel::refresh);
  refresh();
}

void WorkingsPanel::setTheme(const Theme& theme) {
  theme_ = &theme;
  reduction_->setTheme(theme);
  refresh();
}

// Choices only: which measures a garment does not use, the sheet of `armure-cli check` lists.
void WorkingsPanel::showIdle() {
  QStringList lines;
  for (const Idle& i : session_.idle())
    if (i.measure.empty()) lines << QString("idle: %1, %2").arg(QString::fromStdString(i.key), words(i.reason));
  idle_->setText(lines.join("\n"));
  idle_->setVisible(!lines.isEmpty());
}

void WorkingsPanel::refresh() {
  const Design* d = session_.design();
  const std::string_view measure = measureOfKey(session_.selection().working);
  text_->settle(d                 ? workingsText(session_.order(), *d, session_.selection(), *theme_)
                : measure.empty() ? QString("<p>Nothing is drafted yet.</p>")
                                  : measureText(session_.order(), measure, *theme_));
}

}  // namespace armure
