// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/panelitem.h"

#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "paint/text.h"

#include <QApplication>
#include <QCheckBox>
#include <QFontMetricsF>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPointer>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// A labelled field; the reason of a refusal stands below it.
class FieldView : public QWidget
{
public:
    FieldView(const PanelField &item, QWidget *parent)
        : QWidget(parent)
        , m_label(new QLabel(this))
        , m_field(new QuantityField(item.dimension, item.unit, this))
        , m_reason(new QLabel(this))
    {
        auto *row = new QHBoxLayout;
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(m_label, 1);
        row->addWidget(m_field);
        auto *unit = new QLabel(this);
        unit->setFixedWidth(49);
        nameWithUnit(unit, {}, m_field);
        row->addWidget(unit);
        auto *column = new QVBoxLayout(this);
        column->setContentsMargins(0, 2, 0, 2);
        column->setSpacing(2);
        column->addLayout(row);
        column->addWidget(m_reason);
        m_reason->setWordWrap(true);
        m_reason->hide();
        m_label->setBuddy(m_field);
        m_label->setWordWrap(true);
        m_field->setFixedWidth(72);
        m_field->setObjectName(item.id);
        m_field->setNudge(std::pow(10.0, -item.decimals));
        connect(m_field, &QuantityField::refused, this, [this](const QString &why) { say(why); });
        connect(m_field, &QuantityField::understood, this, [this] { say({}); });
        connect(m_field, &QuantityField::entered, this, [this](double si) {
            const auto ok = m_store(si);
            if (!ok) {
                m_field->setValue(m_stored);
                say(qs(ok.error()));
            }
        });
        set(item);
    }

    void set(const PanelField &item)
    {
        m_store = item.store;
        m_field->setWhatsThis(item.about);
        m_label->setToolTip(item.about);
        m_label->setText(item.label);
        m_field->setAccessibleName(item.label);
        m_field->setUnit(item.unit);
        m_field->setDecimals(item.decimals);
        m_field->followUnits();
        if (m_stored != item.value_si || !m_field->hasFocus()) {
            m_stored = item.value_si;
            if (!m_field->isModified())
                m_field->setValue(item.value_si);
        }
    }

private:
    void say(const QString &why)
    {
        m_reason->setText(why);
        m_reason->setVisible(!why.isEmpty());
        QPalette palette = m_reason->palette();
        palette.setColor(QPalette::WindowText, Theme::current().hold);
        m_reason->setPalette(palette);
    }

    QLabel *m_label;
    QuantityField *m_field;
    QLabel *m_reason;
    std::optional<double> m_stored;
    std::function<Result<void>(double)> m_store;
};

class ButtonView : public QPushButton
{
public:
    ButtonView(const PanelButton &item, QWidget *parent)
        : QPushButton(parent)
    {
        connect(this, &QPushButton::clicked, this, [this] { m_pressed(); });
        set(item);
    }
    void set(const PanelButton &item)
    {
        setObjectName(item.id);
        setText(item.text);
        m_pressed = item.pressed;
    }

private:
    std::function<void()> m_pressed;
};

/// A box to tick with its words beside it; what does not stand shows its mark and the reason.
class TickView : public QWidget
{
public:
    TickView(const PanelTick &item, QWidget *parent)
        : QWidget(parent)
        , m_box(new QCheckBox(this))
        , m_text(new QLabel(this))
        , m_detail(new QLabel(this))
    {
        auto *row = new QHBoxLayout(this);
        row->setContentsMargins(1, 4, 0, 4);
        row->setSpacing(7);
        row->addWidget(m_box, 0, Qt::AlignTop);
        auto *words = new QVBoxLayout;
        words->setSpacing(1);
        for (QLabel *label : { m_text, m_detail }) {
            label->setWordWrap(true);
            words->addWidget(label);
        }
        m_text->setBuddy(m_box);
        row->addLayout(words, 1);
        connect(m_box, &QCheckBox::clicked, this, [this](bool on) { m_toggled(on); });
        set(item);
    }
    void set(const PanelTick &item)
    {
        m_box->setObjectName(item.id);
        m_box->setChecked(item.on);
        m_box->setAccessibleName(item.text);
        // The label has the box for a buddy, so an "&" would be a key.
        m_text->setText(QString(item.text).replace(u'&', QStringLiteral("&&")));
        m_detail->setText(item.detail);
        m_detail->setVisible(!item.detail.isEmpty());
        const Theme &t = Theme::current();
        setTone(m_text,
                item.mark == Mark::Hold || item.mark == Mark::LookAgain ? t.mark(item.mark)
                                                                        : t.ink);
        setTone(m_detail, t.muted);
        m_toggled = item.toggled;
    }

private:
    QCheckBox *m_box;
    QLabel *m_text, *m_detail;
    std::function<void(bool)> m_toggled;
};

/// Something with a label before it and, when it was refused, the reason below.
class LabelledView : public QWidget
{
public:
    LabelledView(QWidget *inner, QWidget *parent)
        : QWidget(parent)
        , m_label(new QLabel(this))
        , m_reason(new QLabel(this))
    {
        auto *row = new QHBoxLayout;
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(m_label, 1);
        inner->setParent(this);
        inner->setFixedWidth(140);
        row->addWidget(inner);
        auto *column = new QVBoxLayout(this);
        column->setContentsMargins(0, 2, 0, 2);
        column->setSpacing(2);
        column->addLayout(row);
        column->addWidget(m_reason);
        m_reason->setWordWrap(true);
        m_reason->hide();
        m_label->setWordWrap(true);
        m_label->setBuddy(inner);
    }

protected:
    void setLabel(const QString &label) { m_label->setText(label); }
    /// Says why not, or nothing when it went well. @return whether it went well
    bool say(const Result<void> &result)
    {
        m_reason->setText(result ? QString() : qs(result.error().message));
        m_reason->setVisible(!result);
        setTone(m_reason, Theme::current().hold);
        return result.has_value();
    }

private:
    QLabel *m_label;
    QLabel *m_reason;
};

class ChoiceView : public LabelledView
{
public:
    ChoiceView(const PanelChoice &item, QWidget *parent)
        : ChoiceView(item, new ArrowCombo, parent)
    {
    }
    void set(const PanelChoice &item)
    {
        setLabel(item.label);
        m_combo->setObjectName(item.id);
        m_combo->setAccessibleName(item.label);
        m_chosen = item.chosen;
        m_current = item.current;
        const QSignalBlocker block(m_combo);
        QStringList shown;
        for (int i = 0; i < m_combo->count(); ++i)
            shown << m_combo->itemText(i);
        if (shown != item.options) {
            m_combo->clear();
            m_combo->addItems(item.options);
        }
        m_combo->setCurrentIndex(item.current);
    }

private:
    ChoiceView(const PanelChoice &item, ArrowCombo *combo, QWidget *parent)
        : LabelledView(combo, parent)
        , m_combo(combo)
    {
        // Long words are cut; the list that opens shows them whole.
        m_combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        connect(m_combo, &QComboBox::activated, this, [this](int index) {
            // The edit may replace this very widget: nothing of it is touched afterwards then.
            const QPointer<ChoiceView> alive(this);
            const auto result = m_chosen(index);
            if (alive && !say(result))
                m_combo->setCurrentIndex(m_current);
        });
        set(item);
    }

    ArrowCombo *m_combo;
    int m_current = -1;
    std::function<Result<void>(int)> m_chosen;
};

class WordView : public LabelledView
{
public:
    WordView(const PanelWord &item, QWidget *parent)
        : WordView(item, new QLineEdit, parent)
    {
    }
    void set(const PanelWord &item)
    {
        setLabel(item.label);
        m_line->setObjectName(item.id);
        m_line->setAccessibleName(item.label);
        m_store = item.store;
        if (m_stored != item.text || !m_line->hasFocus()) {
            m_stored = item.text;
            m_line->setText(item.text);
        }
    }

private:
    WordView(const PanelWord &item, QLineEdit *line, QWidget *parent)
        : LabelledView(line, parent)
        , m_line(line)
    {
        connect(m_line, &QLineEdit::editingFinished, this, [this] {
            if (m_line->text() == m_stored)
                return;
            const QPointer<WordView> alive(this);
            const auto result = m_store(m_line->text());
            if (alive && !say(result))
                m_line->setText(m_stored);
        });
        set(item);
    }

    QLineEdit *m_line;
    QString m_stored;
    std::function<Result<void>(const QString &)> m_store;
};

class SliderView : public QWidget
{
public:
    SliderView(const PanelSlider &item, QWidget *parent)
        : QWidget(parent)
        , m_label(new QLabel(this))
        , m_text(new QLabel(this))
        , m_slider(new QSlider(Qt::Horizontal, this))
    {
        auto *column = new QVBoxLayout(this);
        column->setContentsMargins(0, 4, 0, 4);
        column->setSpacing(3);
        m_label->setWordWrap(true);
        column->addWidget(m_label);
        column->addWidget(m_slider);
        column->addWidget(m_text);
        m_label->setFont(textFont(TextSize::Normal, true));
        m_slider->setRange(0, steps);
        m_slider->setPageStep(steps / 10);
        m_slider->setSingleStep(steps / 50);
        connect(m_slider, &QSlider::valueChanged, this, [this](int v) {
            // What follows may hand this widget another function while this one runs.
            const auto slid = m_slid;
            slid(static_cast<double>(v) / steps);
        });
        set(item);
    }
    void set(const PanelSlider &item)
    {
        m_label->setText(item.label);
        m_text->setText(item.text);
        setTone(m_text, Theme::current().muted);
        m_slid = item.slid;
        m_slider->setObjectName(item.id);
        m_slider->setAccessibleName(item.label + QStringLiteral(", ") + item.text);
        const QSignalBlocker block(m_slider);
        m_slider->setValue(static_cast<int>(std::lround(item.value * steps)));
    }

private:
    static constexpr int steps = 100;
    QLabel *m_label, *m_text;
    QSlider *m_slider;
    std::function<void(double)> m_slid;
};

/// Items of one shape can take over each other's widgets.
QString shapeOf(const PanelItem &item)
{
    if (const auto *field = std::get_if<PanelField>(&item))
        return QStringLiteral("field ") + field->id + u' ' + qs(field->unit);
    if (std::holds_alternative<PanelButton>(item))
        return QStringLiteral("button");
    if (const auto *tick = std::get_if<PanelTick>(&item))
        return QStringLiteral("tick ") + tick->id;
    if (const auto *choice = std::get_if<PanelChoice>(&item))
        return QStringLiteral("choice ") + choice->id;
    if (const auto *word = std::get_if<PanelWord>(&item))
        return QStringLiteral("word ") + word->id;
    if (const auto *slider = std::get_if<PanelSlider>(&item))
        return QStringLiteral("slider ") + slider->id;
    return QStringLiteral("view");
}

} // namespace

SidePanel::SidePanel(QWidget *parent)
    : QScrollArea(parent)
    , m_page(new QWidget(this))
    , m_layout(new QVBoxLayout(m_page))
{
    setObjectName(QStringLiteral("sidePanel"));
    setWidget(m_page);
    m_page->setAutoFillBackground(false);
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFixedWidth(252);
    setFrameShape(QFrame::NoFrame);
    m_layout->setContentsMargins(16, 10, 14, 10);
    m_layout->setSpacing(0);
    m_layout->addStretch();
}

QWidget *SidePanel::make(const PanelItem &item)
{
    if (const auto *field = std::get_if<PanelField>(&item))
        return new FieldView(*field, m_page);
    if (const auto *button = std::get_if<PanelButton>(&item))
        return new ButtonView(*button, m_page);
    if (const auto *tick = std::get_if<PanelTick>(&item))
        return new TickView(*tick, m_page);
    if (const auto *choice = std::get_if<PanelChoice>(&item))
        return new ChoiceView(*choice, m_page);
    if (const auto *word = std::get_if<PanelWord>(&item))
        return new WordView(*word, m_page);
    if (const auto *slider = std::get_if<PanelSlider>(&item))
        return new SliderView(*slider, m_page);
    return makeItemView(item, m_page);
}

void SidePanel::update(QWidget *widget, const PanelItem &item)
{
    if (const auto *field = std::get_if<PanelField>(&item))
        static_cast<FieldView *>(widget)->set(*field);
    else if (const auto *button = std::get_if<PanelButton>(&item))
        static_cast<ButtonView *>(widget)->set(*button);
    else if (const auto *tick = std::get_if<PanelTick>(&item))
        static_cast<TickView *>(widget)->set(*tick);
    else if (const auto *choice = std::get_if<PanelChoice>(&item))
        static_cast<ChoiceView *>(widget)->set(*choice);
    else if (const auto *word = std::get_if<PanelWord>(&item))
        static_cast<WordView *>(widget)->set(*word);
    else if (const auto *slider = std::get_if<PanelSlider>(&item))
        static_cast<SliderView *>(widget)->set(*slider);
    else
        setItem(widget, item);
}

void SidePanel::setContent(const PanelContent &content)
{
    std::vector<QString> shape;
    for (const PanelItem &item : content)
        shape.push_back(shapeOf(item));
    // What stands before the first difference keeps its widgets: a slider that changes what is said
    // below it must not lose the hand that holds it.
    const auto differs = std::mismatch(shape.begin(), shape.end(), m_shape.begin(), m_shape.end());
    const auto same = static_cast<size_t>(differs.first - shape.begin());
    m_shape = std::move(shape);
    for (size_t i = 0; i < same; ++i)
        update(m_widgets[i], content[i]);
    rebuild(content, same);
}

void SidePanel::rebuild(const PanelContent &content, size_t from)
{
    // The keyboard stays where it was, on what has that name afterwards, or here.
    const QWidget *held = QApplication::focusWidget();
    const bool lost = held
        && std::any_of(m_widgets.begin() + static_cast<std::ptrdiff_t>(from), m_widgets.end(),
                       [&](const QWidget *w) { return w == held || w->isAncestorOf(held); });
    const QString name = lost ? held->objectName() : QString();
    for (size_t i = from; i < m_widgets.size(); ++i) {
        QWidget *widget = m_widgets[i];
        m_layout->removeWidget(widget);
        widget->hide();
        widget->setParent(nullptr); // out of reach of findChild and of the tab order at once
        widget->deleteLater(); // it may be the sender of the edit that led here
    }
    m_widgets.resize(from);
    for (size_t i = from; i < content.size(); ++i) {
        QWidget *widget = make(content[i]);
        m_layout->insertWidget(static_cast<int>(m_widgets.size()), widget);
        widget->show();
        m_widgets.push_back(widget);
    }
    if (!lost)
        return;
    QWidget *again = name.isEmpty() ? nullptr : m_page->findChild<QWidget *>(name);
    (again ? again : this)->setFocus(Qt::OtherFocusReason);
}

} // namespace mildpath
