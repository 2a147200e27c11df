// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"

#include <QColor>
#include <QFont>
#include <QString>

#include <array>

class QApplication;

namespace mildpath {

/// The colours by role. Both themes fill every role; nothing outside this file names a colour.
struct Theme
{
    bool dark;
    QColor bench, panel, line, ink, muted, faint;
    QColor selection, selectionFill;
    QColor proven, lookAgain, hold, returns;
    QColor holdFill; ///< area where nobody gauges
    QColor strip, stripInk, stripMuted, stripLine;
    QColor cold, warm, hot; ///< oil temperatures in the forecast
    std::array<QColor, 5> oil; ///< pressure, low to high

    static const Theme &current();
    QColor mark(Mark mark) const;
    /// Between the tones of `oil` for 0…5 bar.
    QColor pressure(double pa) const;
};

/// While it lives, drawing is for paper: the light theme's colours whatever the window has.
class PaperColours
{
public:
    PaperColours();
    ~PaperColours();
    PaperColours(const PaperColours &) = delete;
    PaperColours &operator=(const PaperColours &) = delete;

private:
    const Theme *m_before;
};

enum class ThemeChoice { System, Light, Dark };

/// Makes a theme current: palette, style sheet, font. Call once before the first window, then at
/// will; widgets repaint by the palette change.
void applyTheme(QApplication &app, ThemeChoice choice);

/// Sizes at 100 %, in pixels.
enum class TextSize { Small, Normal, Body, Title, Readout };
QFont textFont(TextSize size, bool bold = false);

} // namespace mildpath
