#include "app/style_sheet.h"

namespace armure {

QString themeStyleSheet(const Theme& t) {
  QString css = R"(
    QWidget { font-family: Lato; font-size: 13px; color: @ink; }
    QMainWindow, #ground, #tracing { background: @linen; }
    QDialog { background: @linen; }
    #header, #footer { background: @panel; }
    #tray, #trayInside, QScrollArea { background: @panel; border: none; }
    #column, #columnInside { background: @panelLight; border: none; }
    #paperPage { background: @paper; }
    #heading { font-size: 15px; font-weight: bold; }
    #group { font-weight: bold; color: @ink; }
    #working { color: @working; font-weight: bold; padding-right: 8px; }
    #strip { background: @panel; }
    #lesser { color: @second; font-size: 12px; }
    #wrong { color: @attention; font-size: 12px; }
    #workings { background: transparent; border: none; }
    #band { background: @attentionGround; border-left: 4px solid @attention; }
    QLineEdit, QPlainTextEdit { background: @paper; border: 1px solid @hairline; border-radius: 3px; padding: 3px 6px; selection-background-color: @working; selection-color: @onWorking; }
    #found { background: @paper; border: 1px solid @hairline; border-radius: 3px; }
    #found::item:selected { background: @tape; color: @ink; }
    QLineEdit:focus, QPlainTextEdit:focus { border: 1px solid @working; }
    QLineEdit[wrong="true"] { border: 1px solid @attention; background: @attentionGround; }
    QLineEdit[changed="true"] { font-weight: bold; }
    QComboBox { background: @paper; border: 1px solid @hairline; border-radius: 3px; padding: 3px 6px; }
    QComboBox:focus { border: 1px solid @working; }
    QComboBox::drop-down { border: none; width: 18px; }
    QComboBox::down-arrow { image: none; }
    QComboBox QAbstractItemView { background: @paper; border: 1px solid @hairline; selection-background-color: @working; selection-color: @onWorking; outline: none; }
    QPushButton { background: @panelLight; border: 1px solid @hairline; border-radius: 3px; padding: 5px 12px; }
    QPushButton:hover { background: @tape; }
    QPushButton:focus { border: 1px solid @working; }
    QPushButton:disabled { color: @hairline; }
    QPushButton#pill { border-radius: 13px; padding: 4px 12px; min-height: 16px; }
    QPushButton#pill:checked { background: @working; color: @onWorking; border: 1px solid @working; }
    QPushButton#small { padding: 2px 8px; font-size: 12px; }
    QPushButton#plain { background: transparent; border: 1px solid transparent; padding: 3px 7px; }
    QPushButton#plain:hover { background: @tape; }
    QPushButton#more { background: transparent; border: 1px solid transparent; padding: 0 4px; font-size: 11px;
      min-height: 14px; color: @second; }
    QPushButton#more:hover { background: @tape; }
    QPushButton#more:focus { border: 1px solid @working; }
    QPushButton#plain:focus { border: 1px solid @working; }
    QPushButton#plainLeft { background: transparent; border: 1px solid transparent; padding: 1px 2px; text-align: left; }
    QPushButton#plainLeft:hover { background: @tape; }
    QPushButton#plainLeft:focus { border: 1px solid @working; }
    QPushButton#small:checked { background: @working; color: @onWorking; border: 1px solid @working; }
    #moves { background: transparent; font-size: 12px; }
    #moves::item { padding: 2px 4px; color: @second; }
    #moves::item:selected { background: @tape; color: @ink; }
    #styleShelf::item:selected { background: @tape; color: @ink; }
    QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
    QScrollBar::handle:vertical { background: @hairline; border-radius: 4px; min-height: 30px; margin: 1px; }
    QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
    QScrollBar:horizontal { height: 0; }
    QListWidget { background: @panelLight; border: none; outline: none; }
    #printedPieces { background: @paper; border: 1px solid @hairline; border-radius: 3px; outline: none; selection-background-color: @working; selection-color: @onWorking; }
    #printedPieces::item { padding: 2px 0; }
    #clients, #sets, #layers { background: @panelLight; border: 1px solid @hairline; border-radius: 3px; }
    #clients::item, #sets::item, #layers::item { padding: 5px 6px; border: none; color: @ink; }
    #clients::item:selected, #sets::item:selected, #layers::item:selected { background: @working; color: @onWorking; }
    #clients:focus, #sets:focus, #layers:focus, #compared:focus { border: 1px solid @working; }
    QTableWidget, QTreeWidget { background: @paper; border: 1px solid @hairline; border-radius: 3px; outline: none; }
    QTreeWidget:focus { border: 1px solid @working; }
    QTreeWidget::item { padding: 3px 6px; border: none; color: @ink; }
    QTreeWidget::item:selected { background: @tape; color: @ink; }
    QTableWidget::item { padding: 0 6px; }
    QTableWidget::item:selected { background: @tape; color: @ink; }
    QHeaderView::section { background: @panel; color: @second; border: none; border-bottom: 1px solid @hairline; padding: 4px 6px; }
    QToolTip { background: @tape; color: @ink; border: 1px solid @hairline; padding: 3px; }
    QSplitter::handle { background: @hairline; }
  )";
  const std::pair<const char*, QColor> roles[] = {{"@panelLight", t.panelLight},
                                                  {"@panel", t.panel},
                                                  {"@paper", t.paper},
                                                  {"@linen", t.linen},
                                                  {"@ink", t.ink},
                                                  {"@second", t.secondInk},
                                                  {"@hairline", t.hairline},
                                                  {"@working", t.working},
                                                  {"@onWorking", t.onWorking},
                                                  {"@attentionGround", t.attentionGround},
                                                  {"@attention", t.attention},
                                                  {"@tape", t.tape}};
  // Longer names first, so that @panel does not eat @panelLight.
  for (const char* first : {"@panelLight", "@attentionGround", "@onWorking"})
    for (const auto& [role, color] : roles)
      if (QString(role) == first) css.replace(role, color.name());
  for (const auto& [role, color] : roles) css.replace(role, color.name());
  return css;
}

}  // namespace armure
