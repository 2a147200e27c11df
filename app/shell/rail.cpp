// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/rail.h"

#include "checks/assessment.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QApplication>
#include <QStyledItemDelegate>

#include <algorithm>

namespace mildpath {
namespace {

constexpr int columnWidth = 28;
constexpr int leastRow = 24, mostRow = 30;

/// Centre of a mark column, from the right edge.
double markX(double width, int column)
{
    return width - columnWidth * (3 - column) + columnWidth / 2.0 - 2;
}

class RailDelegate : public QStyledItemDelegate
{
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    int rowHeight = leastRow;

    QSize sizeHint(const QStyleOptionViewItem &, const QModelIndex &) const override
    {
        return { 100, rowHeight };
    }

    void paint(QPainter *p, const QStyleOptionViewItem &option,
               const QModelIndex &index) const override
    {
        const Theme &t = Theme::current();
        const QRectF r = option.rect;
        const bool selected = option.state & QStyle::State_Selected;
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        if (selected) {
            p->setPen(option.state & QStyle::State_HasFocus ? QPen(t.selection, 1)
                                                            : QPen(Qt::NoPen));
            p->setBrush(t.selectionFill);
            p->drawRoundedRect(r.adjusted(4.5, 0.5, -4.5, -0.5), 5, 5);
        }
        // The oil's line with a ring at every stop.
        const int rows = index.model()->rowCount();
        p->setPen(QPen(t.oil[2], 3));
        p->drawLine(QPointF(18, index.row() == 0 ? r.center().y() : r.top()),
                    QPointF(18, index.row() == rows - 1 ? r.center().y() : r.bottom() + 1));
        p->setPen(QPen(t.oil[3], 2));
        p->setBrush(t.panel);
        p->drawEllipse(QPointF(18, r.center().y()), 4.5, 4.5);
        const int level = index.data(RailModel::LevelRole).toInt();
        drawLine(*p,
                 QRectF(30 + 7 * level, r.top(), r.width() - 30 - 7 * level - 3 * columnWidth - 2,
                        r.height()),
                 Qt::AlignVCenter, index.data().toString(), textFont(TextSize::Normal, selected),
                 selected ? t.selection : t.ink);
        int column = 0;
        for (const auto role : { RailModel::SizeRole, RailModel::CleanRole, RailModel::FlowRole })
            drawMark(*p, QPointF(r.left() + markX(r.width(), column++), r.center().y()), 10.5,
                     static_cast<Mark>(index.data(role).toInt()));
        p->restore();
    }
};

} // namespace

RailModel::RailModel(OpenBuild &open, QObject *parent)
    : QAbstractListModel(parent)
    , m_open(open)
{
    connect(&open, &OpenBuild::opened, this, [this] {
        beginResetModel();
        endResetModel();
    });
    connect(&open, &OpenBuild::changed, this, [this] {
        // Most edits change one row's marks; repainting all rows would cost a third of a frame.
        const Assessment *before = m_open.previous();
        for (int row = 0; row < rowCount(); ++row) {
            const auto at = static_cast<size_t>(row);
            if (!before || at >= before->marks.size()
                || before->marks[at] != m_open.judgement().marks[at])
                Q_EMIT dataChanged(index(row), index(row));
        }
    });
}

int RailModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_open.build().engine.stops.size());
}

QVariant RailModel::data(const QModelIndex &index, int role) const
{
    if (!checkIndex(index, CheckIndexOption::IndexIsValid))
        return {};
    const Stop &stop = m_open.build().engine.stops[static_cast<size_t>(index.row())];
    const StopMarks *marks = m_open.judgement().marksOf(stop.id);
    const StopMarks none { stop.id, Mark::NotDone, Mark::NotDone, Mark::NotDone, {}, {}, {} };
    const StopMarks &m = marks ? *marks : none;
    switch (role) {
    case Qt::DisplayRole:
        return qs(stop.name);
    case LevelRole:
        return aboutStopKind(stop.kind).level;
    case SizeRole:
        return static_cast<int>(m.size);
    case CleanRole:
        return static_cast<int>(m.clean);
    case FlowRole:
        return static_cast<int>(m.flow);
    case Qt::ToolTipRole:
        return tr("size: %1 (%2)\nclean: %3 (%4)\nflow: %5 (%6)")
            .arg(qs(markWord(m.size)), qs(m.sizeReason), qs(markWord(m.clean)), qs(m.cleanReason),
                 qs(markWord(m.flow)), qs(m.flowReason));
    case Qt::AccessibleTextRole:
        return tr("%1; size %2, clean %3, flow %4")
            .arg(qs(stop.name), qs(markWord(m.size)), qs(markWord(m.clean)), qs(markWord(m.flow)));
    default:
        return {};
    }
}

int RailModel::rowOf(const QString &stop) const
{
    const auto &stops = m_open.build().engine.stops;
    const auto it
        = std::find_if(stops.begin(), stops.end(), [&](const Stop &s) { return qs(s.id) == stop; });
    return it == stops.end() ? -1 : static_cast<int>(it - stops.begin());
}

QString RailModel::stopAt(int row) const
{
    return qs(m_open.build().engine.stops[static_cast<size_t>(row)].id);
}

Rail::Rail(OpenBuild &open, QWidget *parent)
    : QListView(parent)
    , m_open(open)
    , m_model(new RailModel(open, this))
{
    setObjectName(QStringLiteral("rail"));
    setAccessibleName(tr("Stops in oil order"));
    setModel(m_model);
    setItemDelegate(new RailDelegate(this));
    setSelectionMode(QAbstractItemView::SingleSelection);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    setMouseTracking(true);
    connect(&open, &OpenBuild::stopSelected, this, [this](const QString &stop) {
        const int row = m_model->rowOf(stop);
        if (row >= 0 && row != currentIndex().row())
            setCurrentIndex(m_model->index(row));
    });
    connect(&open, &OpenBuild::opened, this, [this] {
        resizeEvent(nullptr);
        const int row = m_model->rowOf(m_open.selectedStop());
        if (row >= 0)
            setCurrentIndex(m_model->index(row));
    });
}

void Rail::currentChanged(const QModelIndex &current, const QModelIndex &previous)
{
    QListView::currentChanged(current, previous);
    if (current.isValid())
        m_open.selectStop(m_model->stopAt(current.row()));
}

void Rail::resizeEvent(QResizeEvent *event)
{
    if (event)
        QListView::resizeEvent(event);
    const int rows = std::max(1, m_model->rowCount());
    auto *delegate = static_cast<RailDelegate *>(itemDelegate());
    const int height = std::clamp((viewport()->height() - 4) / rows, leastRow, mostRow);
    if (height != delegate->rowHeight) {
        delegate->rowHeight = height;
        scheduleDelayedItemsLayout();
    }
}

void RailHead::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    const Theme &t = Theme::current();
    const QFont font = textFont(TextSize::Small);
    drawLine(p, QRectF(14, 0, 80, height()), Qt::AlignVCenter, tr("Oil order"), font, t.muted);
    int column = 0;
    for (const QString &name : { tr("size"), tr("clean"), tr("flow") })
        drawLine(p, QRectF(markX(width(), column++) - 18, 0, 36, height()),
                 Qt::AlignVCenter | Qt::AlignHCenter, name, font, t.muted);
}

} // namespace mildpath
