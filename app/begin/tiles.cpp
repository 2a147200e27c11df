// SPDX-License-Identifier: GPL-3.0-or-later
#include "begin/tiles.h"

#include "begin/smallroute.h"
#include "paint/text.h"
#include "storage/templates.h"

#include <QAccessible>
#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>

namespace mildpath {
namespace {

constexpr int tileColumns = 4;
constexpr double tileGap = 12;

/// "inline-three-turbo" → "Inline-three, turbo".
QString titleOf(const std::string &name)
{
    QStringList words = qs(name).split(u'-');
    QString out = words.takeFirst();
    if ((out == u"inline" || out == u"flat") && !words.isEmpty())
        out += u'-' + words.takeFirst();
    out[0] = out[0].toUpper();
    return words.isEmpty() ? out : out + QStringLiteral(", ") + words.join(u' ');
}

} // namespace

EngineTiles::EngineTiles(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("engineTiles"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(4 * 140, 3 * 96);
}

/// Templates are read when somebody is to see them: a window that opens a file needs none.
void EngineTiles::load()
{
    if (!m_tiles.empty())
        return;
    for (const TemplateInfo &info : listTemplates()) {
        auto loaded = loadTemplate(info.name);
        if (!loaded)
            continue;
        Tile tile { info.name, titleOf(info.name), qs(loaded->build.engine.name), {}, {} };
        const auto mains
            = std::ranges::count(loaded->build.engine.stops, StopKind::Main, &Stop::kind);
        tile.counts = tr("%1, %2").arg(
            counted(static_cast<size_t>(mains), tr("main"), tr("mains")),
            counted(loaded->build.engine.stops.size(), tr("checkpoint"), tr("checkpoints")));
        tile.build = std::move(loaded->build);
        m_tiles.push_back(std::move(tile));
    }
    std::ranges::stable_sort(m_tiles, {}, [](const Tile &t) { return t.build.engine.cylinders; });
    const auto usual = std::ranges::find(m_tiles, "inline-four-wet-sump", &Tile::name);
    m_chosen = usual == m_tiles.end() ? 0 : static_cast<int>(usual - m_tiles.begin());
}

std::string EngineTiles::chosen() const
{
    return m_tiles.empty() ? std::string() : m_tiles[static_cast<size_t>(m_chosen)].name;
}

QString EngineTiles::about() const
{
    return m_tiles.empty() ? QString() : m_tiles[static_cast<size_t>(m_chosen)].about;
}

QRectF EngineTiles::areaOf(int tile) const
{
    const int rows = std::max(1, (count() + tileColumns - 1) / tileColumns);
    const double w = (width() - tileGap * (tileColumns - 1)) / tileColumns;
    const double h = (height() - tileGap * (rows - 1)) / rows;
    return { (tile % tileColumns) * (w + tileGap), (tile / tileColumns) * (h + tileGap), w, h };
}

int EngineTiles::tileAt(QPointF at) const
{
    for (int i = 0; i < count(); ++i)
        if (areaOf(i).contains(at))
            return i;
    return -1;
}

void EngineTiles::choose(int tile)
{
    if (tile < 0 || tile >= count())
        return;
    m_chosen = tile;
    const Tile &t = m_tiles[static_cast<size_t>(tile)];
    setAccessibleName(tr("Begin from: %1, %2").arg(t.title, t.counts));
    QAccessibleEvent told(this, QAccessible::NameChanged);
    QAccessible::updateAccessibility(&told);
    update();
    Q_EMIT picked();
}

void EngineTiles::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    for (int i = 0; i < count(); ++i) {
        const Tile &tile = m_tiles[static_cast<size_t>(i)];
        const QRectF area = areaOf(i).adjusted(0.5, 0.5, -0.5, -0.5);
        const bool chosen = i == m_chosen;
        p.setPen(QPen(chosen ? t.selection : t.line, chosen && hasFocus() ? 2 : 1));
        p.setBrush(chosen ? t.selectionFill : t.panel);
        p.drawRoundedRect(area, 5, 5);
        constexpr double words = 38;
        drawSmallRoute(p, tile.build, area.adjusted(10, 8, -10, -words - 2));
        const QRectF text(area.left() + 12, area.bottom() - words, area.width() - 20, 18);
        drawLine(p, text, Qt::AlignLeft | Qt::AlignVCenter, tile.title,
                 textFont(TextSize::Normal, true), chosen ? t.selection : t.ink);
        drawLine(p, text.translated(0, 16), Qt::AlignLeft | Qt::AlignVCenter, tile.counts,
                 textFont(TextSize::Small), t.muted);
    }
}

void EngineTiles::mousePressEvent(QMouseEvent *event)
{
    choose(tileAt(event->position()));
}

void EngineTiles::mouseDoubleClickEvent(QMouseEvent *event)
{
    if (tileAt(event->position()) >= 0)
        Q_EMIT made();
}

void EngineTiles::keyPressEvent(QKeyEvent *event)
{
    switch (event->key()) {
    case Qt::Key_Left:
        return choose(m_chosen - 1);
    case Qt::Key_Right:
        return choose(m_chosen + 1);
    case Qt::Key_Up:
        return choose(m_chosen - tileColumns);
    case Qt::Key_Down:
        return choose(m_chosen + tileColumns);
    case Qt::Key_Return:
    case Qt::Key_Enter:
        Q_EMIT made();
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

bool EngineTiles::event(QEvent *event)
{
    if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut)
        update();
    return QWidget::event(event);
}

} // namespace mildpath
