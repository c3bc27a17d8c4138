#include "app/findings_panel.h"

#include <QVBoxLayout>
#include <array>

#include "measure/figure.h"
#include "measure/measure_table.h"
#include "render/words.h"
#include "rules/rule_table.h"

namespace armure {
namespace {

QString small(const QString& text, const Theme& theme) {
  return QString("<span style='color:%1; font-size:12px'>%2</span>").arg(theme.secondInk.name(), text);
}

// What a figure chooses, from the rule table's defaults.
constexpr std::array<std::pair<const char*, const char*>, 3> kChosen{
    {{"intake.top", "top edge"}, {"intake.waist", "waist"}, {"dart.side", "side dart"}}};

double chosen(const RuleInfo& rule, Figure figure) {
  return figure == Figure::Small ? rule.small : figure == Figure::Medium ? rule.medium : rule.full;
}

QString figureRows(Figure mine, LengthFormat units, const Theme& theme) {
  QString html = "<table width='100%' cellspacing='0' cellpadding='2'><tr>";
  const auto head = [&](const QString& text, const char* align) {
    html += QString("<td align='%1'>%2</td>").arg(align, small(text, theme));
  };
  head("full less upper", "left");
  for (const auto& column : kChosen) head(column.second, "right");
  html += "</tr>";
  for (const FigureClass& row : figureTable()) {
    const bool here = row.figure == mine;
    const QString open = here ? "<b>" : "", close = here ? "</b>" : "";
    const QString from =
        row.fromMm > 0 ? QString(", from %1").arg(escaped(formatLength(row.fromMm, units))) : QString();
    html += QString("<tr style='background:%1'><td>%2%3%4%5</td>")
                .arg(here ? theme.tape.name() : QStringLiteral("transparent"), open, escaped(row.name), from, close);
    for (const auto& column : kChosen)
      html += QString("<td align='right'>%1%2%3</td>")
                  .arg(open, escaped(formatLength(chosen(*findRule(column.first), row.figure), units)), close);
    html += "</tr>";
  }
  return html + "</table>";
}

QString bustText(const Order& order, const Theme& theme) {
  if (!order.measures.has(id::kBust)) return small("The bust was not taken yet.", theme);
  const Fact bust = factOf(id::kBust, order.measures), upper = factOf(id::kUpperBust, order.measures);
  const Fact under = factOf(id::kUnderbust, order.measures);
  QString html = "<table width='100%' cellspacing='0' cellpadding='2'>";
  const auto row = [&](const QString& what, const QString& value, bool estimated) {
    html += QString("<tr><td>%1</td><td align='right'><b>%2</b></td><td width='64'>&nbsp;%3</td></tr>")
                .arg(what, value, estimated ? small("estimated", theme) : QString());
  };
  row("Full bust less upper bust", escaped(formatLengthWithUnit(bust.mm - upper.mm, order.units)),
      upper.source == Source::Estimated);
  row("Full bust less underbust", escaped(formatLengthWithUnit(bust.mm - under.mm, order.units)),
      under.source == Source::Estimated);
  row("European bra size", words(braSize(bust.mm, under.mm).text()), under.source == Source::Estimated);
  html += "</table>" +
          small("The bra size is by EN 13402-3 steps, for orientation only: nothing is drafted from it.", theme);
  return html + "<p></p>" + figureRows(figureFor(bust.mm - upper.mm), order.units, theme);
}

QString questionRow(const Question& question, LengthFormat units, const Theme& theme) {
  const bool note = question.severity == Severity::Note;
  return QString("<p><a style='color:%1' href='%2'>%3</a> %4</p>")
      .arg((note ? theme.secondInk : theme.attention).name(), escaped(question.measure),
           QString(severityName(question.severity)), words(question.text, units));
}

}  // namespace

QString findingsText(const Order& order, const std::vector<Question>& questions, const Theme& theme) {
  QString html = "<p style='font-size:15px'><b>Bust and cup</b></p>" + bustText(order, theme);
  html += "<p style='font-size:15px'><b>Questions about the measures</b></p>";
  if (questions.empty())
    html += small(order.measures.all().size() < 3 ? "None yet; they come with the measures."
                                                  : "None: the measures agree with each other.",
                  theme);
  for (const Question& question : questions) html += questionRow(question, order.units, theme);
  return html;
}

FindingsPanel::FindingsPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()), text_(new QLabel) {
  setObjectName("columnInside");
  text_->setObjectName("findings");
  text_->setWordWrap(true);
  text_->setAlignment(Qt::AlignTop);
  text_->setTextInteractionFlags(Qt::TextBrowserInteraction);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(18, 6, 16, 6);
  column->addWidget(text_);
  column->addStretch(1);
  connect(text_, &QLabel::linkActivated, this, [this](const QString& id) { emit measureChosen(id.toStdString()); });
  connect(&session, &OrderSession::changed, this, &FindingsPanel::refresh);
  refresh();
}

void FindingsPanel::setTheme(const Theme& theme) {
  theme_ = &theme;
  refresh();
}

void FindingsPanel::refresh() {
  if (!isVisible()) return;
  const QString text = findingsText(session_.order(), session_.questions(), *theme_);
  if (text_->text() != text) text_->setText(text);
}

}  // namespace armure
