// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "paint/figure.h"
#include "paint/theme.h"
#include "quantity/units.h"

#include <QScrollArea>
#include <QString>
#include <QStringList>

#include <functional>
#include <variant>
#include <vector>

class QVBoxLayout;

namespace mildpath {

enum class Tone { Plain, Muted, Good, Warn, Bad };
QColor toneColour(Tone tone);

// What a bench says in the side panel, item by item.

struct PanelTitle
{
    QString text, detail;
    std::vector<Mark> marks {}; ///< size, clean, flow of a stop
};
struct PanelHeading
{
    QString text;
    Tone tone = Tone::Plain;
};
struct PanelRow
{
    QString label;
    Shown value;
    QString tip {};
};
/// Before → after.
struct PanelChange
{
    QString label;
    Shown before, after;
    Tone tone = Tone::Plain;
    /// As they are shown: a change nobody sees is none.
    bool same() const { return before.text() == after.text(); }
};
struct PanelVerdict
{
    Mark mark;
    QString text, detail;
};
struct PanelText
{
    QString text;
    Tone tone = Tone::Plain;
};
struct PanelRule
{
};
/// A dimension that can be changed in place.
struct PanelField
{
    QString id; ///< object name
    QString label;
    Dimension dimension;
    std::string unit;
    int decimals;
    std::optional<double> value_si;
    std::function<Result<void>(double si)> store;
    QString about {}; ///< what it is and may be, for who asks
};
struct PanelButton
{
    QString id;
    QString text;
    std::function<void()> pressed;
};
/// One of several, chosen in place.
struct PanelChoice
{
    QString id;
    QString label;
    QStringList options;
    int current; ///< −1: none yet
    /// An error is said below; the choice then stays what it was.
    std::function<Result<void>(int index)> chosen;
};
/// A word typed in place.
struct PanelWord
{
    QString id;
    QString label;
    QString text;
    std::function<Result<void>(const QString &text)> store;
};
/// Something seen to be so, ticked in place.
struct PanelTick
{
    QString id;
    Mark mark;
    QString text, detail;
    bool on;
    std::function<void(bool on)> toggled;
};
/// How much of something, slid in place.
struct PanelSlider
{
    QString id;
    QString label;
    QString text; ///< what the value means
    double value; ///< 0…1
    std::function<void(double value)> slid;
};
using PanelItem = std::variant<PanelTitle, PanelHeading, PanelRow, PanelChange, PanelVerdict,
                               PanelText, PanelRule, PanelField, PanelButton, PanelTick,
                               PanelChoice, PanelWord, PanelSlider>;
using PanelContent = std::vector<PanelItem>;

/// The side panel: shows a content, keeping its widgets as long as the kinds of items stay the same
/// so that typing stays within a frame and a field keeps its focus.
class SidePanel : public QScrollArea
{
    Q_OBJECT
public:
    explicit SidePanel(QWidget *parent = nullptr);
    void setContent(const PanelContent &content);

private:
    void rebuild(const PanelContent &content, size_t from);
    void update(QWidget *widget, const PanelItem &item);
    QWidget *make(const PanelItem &item);

    QWidget *m_page;
    QVBoxLayout *m_layout;
    std::vector<QWidget *> m_widgets;
    std::vector<QString> m_shape;
};

} // namespace mildpath
