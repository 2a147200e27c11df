// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/theme.h"

#include <utility>

#include <QApplication>
#include <QFontDatabase>
#include <QPalette>
#include <QStyleFactory>

#include <algorithm>
#include <cmath>

/// The fonts sit in a static library, so the linker must be told that they are wanted.
static void initResources()
{
    Q_INIT_RESOURCE(resources);
}

namespace mildpath {
namespace {

QColor rgb(unsigned value)
{
    return QColor::fromRgb(value);
}

const Theme light {
    .dark = false,
    .bench = rgb(0xEEECE4),
    .panel = rgb(0xF8F6F0),
    .line = rgb(0xD5D1C4),
    .ink = rgb(0x1F2B33),
    .muted = rgb(0x5E6A72),
    .faint = rgb(0x9AA3A6),
    .selection = rgb(0x245B86),
    .selectionFill = rgb(0xDCE8F0),
    .proven = rgb(0x2C6B57),
    .lookAgain = rgb(0xA86A0B),
    .hold = rgb(0x9E2F28),
    .returns = rgb(0x8AA0AC),
    .holdFill = rgb(0xECD0CB),
    .strip = rgb(0x25323A),
    .stripInk = rgb(0xF8F6F0),
    .stripMuted = rgb(0xB9C3C8),
    .stripLine = rgb(0x44525B),
    .cold = rgb(0x3E6F8E),
    .warm = rgb(0xA8711F),
    .hot = rgb(0x9E2F28),
    .oil = { rgb(0xEADBB8), rgb(0xDDBB77), rgb(0xC8933C), rgb(0xA26A22), rgb(0x74471A) },
};

const Theme dark {
    .dark = true,
    .bench = rgb(0x1B2126),
    .panel = rgb(0x232B31),
    .line = rgb(0x3B464E),
    .ink = rgb(0xECE8DE),
    .muted = rgb(0xA9B3B9),
    .faint = rgb(0x7F8A91),
    .selection = rgb(0x86BCE6),
    .selectionFill = rgb(0x2B3E4D),
    .proven = rgb(0x6CC0A0),
    .lookAgain = rgb(0xE3A84A),
    .hold = rgb(0xEE8578),
    .returns = rgb(0x7C919D),
    .holdFill = rgb(0x4A2C2A),
    .strip = rgb(0x11161A),
    .stripInk = rgb(0xF4F0E6),
    .stripMuted = rgb(0xA9B3B9),
    .stripLine = rgb(0x333D45),
    .cold = rgb(0x7FB4D6),
    .warm = rgb(0xDDAA57),
    .hot = rgb(0xEE8578),
    .oil = { rgb(0x5A4C33), rgb(0x86693A), rgb(0xB08440), rgb(0xD3A457), rgb(0xF0CB85) },
};

const Theme *active = &light;

QPalette paletteOf(const Theme &t)
{
    QPalette p;
    p.setColor(QPalette::Window, t.bench);
    p.setColor(QPalette::WindowText, t.ink);
    p.setColor(QPalette::Base, t.panel);
    p.setColor(QPalette::AlternateBase, t.bench);
    p.setColor(QPalette::Text, t.ink);
    p.setColor(QPalette::PlaceholderText, t.faint);
    p.setColor(QPalette::Button, t.panel);
    p.setColor(QPalette::ButtonText, t.ink);
    p.setColor(QPalette::ToolTipBase, t.panel);
    p.setColor(QPalette::ToolTipText, t.ink);
    p.setColor(QPalette::Highlight, t.selection);
    p.setColor(QPalette::HighlightedText, t.panel);
    p.setColor(QPalette::Link, t.selection);
    p.setColor(QPalette::Mid, t.line);
    p.setColor(QPalette::Dark, t.line);
    p.setColor(QPalette::Light, t.panel);
    for (const auto role : { QPalette::WindowText, QPalette::Text, QPalette::ButtonText })
        p.setColor(QPalette::Disabled, role, t.faint);
    return p;
}

QString styleSheetOf(const Theme &t)
{
    QString css = QStringLiteral(R"(
        QMenuBar { background: @panel; border: none; padding: 2px 6px; }
        QMenuBar::item { padding: 3px 10px; border-radius: 4px; background: transparent; }
        QMenuBar::item:selected { background: @selfill; color: @sel; }
        QMenu { background: @panel; border: 1px solid @line; padding: 4px; }
        QMenu::item { padding: 5px 26px 5px 22px; border-radius: 4px; }
        QMenu::item:selected { background: @selfill; color: @sel; }
        QMenu::item:disabled { color: @faint; }
        QMenu::separator { height: 1px; background: @line; margin: 4px 6px; }
        QLineEdit, QComboBox { background: @panel; border: 1px solid @line; border-radius: 5px;
            padding: 3px 7px; selection-background-color: @sel; selection-color: @panel; }
        QLineEdit:focus { border: 2px solid @sel; padding: 2px 6px; }
        QLineEdit#buildName { background: transparent; border-color: transparent; }
        QLineEdit#buildName:hover { border: 1px solid @line; }
        QLineEdit#buildName:focus { border: 2px solid @sel; background: @panel; }
        QLineEdit[refused="true"] { border: 2px solid @hold; padding: 2px 6px; }
        QComboBox:focus { border: 2px solid @sel; padding: 2px 6px; }
        QComboBox::drop-down { border: none; width: 20px; }
        QComboBox QAbstractItemView { background: @panel; border: 1px solid @line;
            selection-background-color: @selfill; selection-color: @sel; outline: 0; }
        QPushButton { background: @panel; border: 1px solid @line; border-radius: 5px;
            padding: 5px 12px; }
        SidePanel QPushButton, mildpath--SidePanel QPushButton { margin: 3px 0; }
        QPushButton:hover { border-color: @sel; }
        QPushButton:focus { border: 2px solid @sel; padding: 4px 11px; }
        QPushButton:checked { background: @selfill; border-color: @sel; color: @sel; }
        QPushButton:disabled { color: @faint; }
        QPushButton[danger="true"] { background: @hold; color: @panel; border-color: @hold;
            font-weight: bold; }
        QPushButton[danger="true"]:disabled { background: @panel; color: @faint;
            border-color: @line; }
        QPushButton[main="true"] { border-color: @sel; color: @sel; font-weight: bold; }
        QPushButton[main="true"]:disabled { border-color: @line; color: @faint; }
        QPushButton[leads="true"] { background: @sel; color: @panel; border-color: @sel;
            font-weight: bold; }
        QPushButton[leads="true"]:disabled { background: @panel; color: @faint;
            border-color: @line; }
        QPushButton[plain="true"] { background: transparent; border: none; padding: 1px 2px;
            text-align: left; }
        QPushButton[plain="true"]:hover, QPushButton[plain="true"]:focus { color: @sel;
            border: none; text-decoration: underline; padding: 1px 2px; }
        QScrollArea, QListView { background: transparent; border: none; }
        QScrollBar:vertical { background: transparent; width: 9px; }
        QScrollBar::handle:vertical { background: @line; border-radius: 4px; min-height: 24px; }
        QScrollBar::add-line, QScrollBar::sub-line { height: 0; }
        QSlider::groove:horizontal { background: @line; height: 4px; border-radius: 2px; }
        QSlider::sub-page:horizontal { background: @sel; border-radius: 2px; }
        QSlider[bothWays="true"]::sub-page:horizontal { background: @line; }
        QSlider::handle:horizontal { background: @panel; border: 2px solid @sel; width: 12px;
            height: 12px; margin: -6px 0; border-radius: 8px; }
        QSlider::handle:horizontal:focus { background: @sel; }
        QToolTip { background: @panel; color: @ink; border: 1px solid @line; padding: 4px; }
    )");
    const std::pair<const char *, QColor> roles[] = {
        { "@panel", t.panel },   { "@line", t.line },   { "@selfill", t.selectionFill },
        { "@sel", t.selection }, { "@faint", t.faint }, { "@ink", t.ink },
        { "@hold", t.hold },
    };
    for (const auto &[name, colour] : roles)
        css.replace(QLatin1String(name), colour.name());
    return css;
}

bool systemIsDark(const QPalette &palette)
{
    return palette.color(QPalette::Window).lightness()
        < palette.color(QPalette::WindowText).lightness();
}

void loadFonts()
{
    static const bool loaded = [] {
        initResources();
        for (const char *file : { "B612-Regular", "B612-Bold", "B612-Italic", "B612-BoldItalic" })
            QFontDatabase::addApplicationFont(
                QStringLiteral(":/fonts/%1.otf").arg(QLatin1String(file)));
        return true;
    }();
    Q_UNUSED(loaded)
}

} // namespace

PaperColours::PaperColours()
    : m_before(std::exchange(active, &light))
{
}

PaperColours::~PaperColours()
{
    active = m_before;
}

const Theme &Theme::current()
{
    return *active;
}

QColor Theme::mark(Mark m) const
{
    switch (m) {
    case Mark::Proven:
        return proven;
    case Mark::LookAgain:
        return lookAgain;
    case Mark::Hold:
        return hold;
    case Mark::Assumed:
        return proven;
    case Mark::SignedOff:
    case Mark::NotAsked:
    case Mark::NotDone:
        return muted;
    }
    return muted;
}

QColor Theme::pressure(double pa) const
{
    const double at = std::clamp(pa / 5e5, 0.0, 1.0) * (static_cast<double>(oil.size()) - 1);
    const auto low = std::min(static_cast<size_t>(at), oil.size() - 2);
    const float share = static_cast<float>(at - static_cast<double>(low));
    const QColor a = oil[low], b = oil[low + 1];
    return QColor::fromRgbF(a.redF() + share * (b.redF() - a.redF()),
                            a.greenF() + share * (b.greenF() - a.greenF()),
                            a.blueF() + share * (b.blueF() - a.blueF()));
}

void applyTheme(QApplication &app, ThemeChoice choice)
{
    static const bool darkSystem = systemIsDark(app.palette());
    loadFonts();
    active = choice == ThemeChoice::Dark || (choice == ThemeChoice::System && darkSystem) ? &dark
                                                                                          : &light;
    app.setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    app.setPalette(paletteOf(*active));
    app.setFont(textFont(TextSize::Normal));
    app.setStyleSheet(styleSheetOf(*active));
}

QFont textFont(TextSize size, bool bold)
{
    // Tenths of a pixel do not survive every platform; the small size is 10.5 in the design.
    static constexpr std::array pixels { 11, 12, 13, 16, 21 };
    // Our copy carries a name of its own: where B612 is installed, its Mono answers to "B612" too.
    QFont font(QStringLiteral("Mild Path B612"));
    font.setPixelSize(pixels[static_cast<size_t>(size)]);
    font.setBold(bold);
    return font;
}

} // namespace mildpath
