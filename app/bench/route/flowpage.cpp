// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/flowpage.h"

#include "assess/finding.h"
#include "assess/rules.h"
#include "checks/judgement.h"
#include "document/logbook.h"
#include "entry/refusal.h"
#include "kinds/cautions.h"
#include "paint/marks.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "quantity/rounding.h"
#include "storage/buildfile.h"

#include <QFileDialog>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double outletRow = 27, outletNames = 168, pitch = 34;

/// Stops where oil can be seen to come out: bearings, lifters, rockers, jets and what is fed like
/// them.
bool shown(const Stop &stop)
{
    constexpr std::array kinds { StopKind::Main,       StopKind::BigEnd, StopKind::BalanceShaft,
                                 StopKind::CamBearing, StopKind::Rocker, StopKind::Lifter,
                                 StopKind::Jet,        StopKind::Chain,  StopKind::Tensioner,
                                 StopKind::Phaser,     StopKind::Turbo,  StopKind::Idler };
    return std::find(kinds.begin(), kinds.end(), stop.kind) != kinds.end();
}

QString meansWord(const std::string &means)
{
    if (means == "pressure_pot")
        return FlowPage::tr("pressure pot");
    if (means == "drill")
        return FlowPage::tr("drill on the pump");
    return means == "starter" ? FlowPage::tr("starter") : FlowPage::tr("engine running");
}

QString cautionOf(std::string_view means)
{
    if (means == "pressure_pot")
        return qs(caution::pressurePot);
    if (means == "drill")
        return qs(caution::drillSnatches);
    return means == "starter" ? qs(caution::belts) : qs(caution::coverOff);
}

} // namespace

FlowBoard::FlowBoard(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("flowBoard"));
    setFocusPolicy(Qt::StrongFocus);
}

/// Rows of many break into the next line of circles.
int FlowBoard::perRow() const
{
    return std::max(4, static_cast<int>((width() - outletNames - 20) / pitch));
}

void FlowBoard::relayout()
{
    m_rows.clear();
    const Build &build = m_open.build();
    const auto seen = standing(build.flows);
    double y = 8 + outletRow / 2;
    QStringList spoken;
    for (const Stop &s : build.engine.stops) {
        if (!shown(s))
            continue;
        const FlowProof proof = flowProof(build, s, seen);
        Row row { s.id, qs(s.name), qs(proof.text), y, {} };
        for (const FlowOutlet &o : proof.outlets)
            row.outlets.push_back(o.mark());
        // What is known of it otherwise stands where nobody looked outlet by outlet.
        const StopMarks *marks = m_open.judgement().marksOf(s.id);
        if (proof.seen == 0 && marks && marks->flow != Mark::NotDone)
            row.text = tr("by itself: %1").arg(qs(marks->flowReason));
        spoken << row.name + QStringLiteral(": ") + row.text;
        const int lines = (static_cast<int>(row.outlets.size()) + perRow() - 1) / perRow();
        y += outletRow * std::max(1, lines);
        m_rows.push_back(std::move(row));
    }
    setFixedHeight(static_cast<int>(y));
    setAccessibleName(tr("Oil seen to flow: ") + spoken.join(QStringLiteral("; ")));
    update();
}

QPointF FlowBoard::spot(const Row &row, int outlet) const
{
    return { outletNames + 16 + pitch * (outlet % perRow()),
             row.y + outletRow * (outlet / perRow()) };
}

QPointF FlowBoard::placeOf(const std::string &stop, int outlet) const
{
    for (const Row &r : m_rows)
        if (r.stop == stop)
            return outlet > 0 ? spot(r, outlet - 1) : QPointF(40, r.y);
    return {};
}

void FlowBoard::choose(const std::string &stop, int outlet)
{
    m_stop = stop;
    m_outlet = outlet;
    update();
}

void FlowBoard::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    for (const Row &r : m_rows) {
        const bool mine = r.stop == m_stop;
        if (mine) {
            p.setPen(hasFocus() ? QPen(t.selection, 1) : QPen(Qt::NoPen));
            p.setBrush(t.selectionFill);
            p.drawRoundedRect(QRectF(2, r.y - outletRow / 2 + 1, width() - 4, outletRow - 2), 4, 4);
        }
        drawLine(p, QRectF(14, r.y - 10, outletNames - 20, 20), Qt::AlignVCenter, r.name,
                 textFont(TextSize::Normal, mine), mine ? t.selection : t.ink);
        const bool many = r.outlets.size() > 1;
        for (size_t i = 0; i < r.outlets.size(); ++i) {
            const QPointF c = spot(r, static_cast<int>(i));
            if (mine && (m_outlet == static_cast<int>(i) + 1 || (m_outlet == 0 && many))) {
                p.setPen(QPen(t.selection, 2));
                p.setBrush(Qt::NoBrush);
                p.drawEllipse(c, 11, 11);
            }
            drawMark(p, c, 14, r.outlets[i]);
            if (many)
                drawLine(p, QRectF(c.x() + 12, c.y() - 8, 16, 16), Qt::AlignVCenter,
                         QString::number(i + 1), textFont(TextSize::Small), t.faint);
        }
        const double text = outletNames + 24 + 8 * pitch;
        drawLine(p, QRectF(text, r.y - 9, width() - text - 8, 18), Qt::AlignVCenter, r.text,
                 textFont(TextSize::Small), t.muted);
    }
}

void FlowBoard::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    for (const Row &r : m_rows)
        for (size_t i = 0; i < r.outlets.size(); ++i) {
            const QPointF d = spot(r, static_cast<int>(i)) - event->position();
            if (std::hypot(d.x(), d.y()) < 14) {
                Q_EMIT picked(qs(r.stop), r.outlets.size() > 1 ? static_cast<int>(i) + 1 : 0);
                return;
            }
        }
    for (const Row &r : m_rows)
        if (std::abs(r.y - event->position().y()) < outletRow / 2)
            Q_EMIT picked(qs(r.stop), 0);
}

void FlowBoard::keyPressEvent(QKeyEvent *event)
{
    const auto at = std::find_if(m_rows.begin(), m_rows.end(),
                                 [&](const Row &r) { return r.stop == m_stop; });
    if (at == m_rows.end())
        return QWidget::keyPressEvent(event);
    const int outlets = static_cast<int>(at->outlets.size());
    auto row = at;
    int outlet = 0;
    switch (event->key()) {
    case Qt::Key_Right:
        outlet = outlets > 1 ? std::min(outlets, m_outlet + 1) : 0;
        break;
    case Qt::Key_Left:
        outlet = std::max(0, m_outlet - 1);
        break;
    case Qt::Key_Down:
        row = row + 1 == m_rows.end() ? row : row + 1;
        break;
    case Qt::Key_Up:
        row = row == m_rows.begin() ? row : row - 1;
        break;
    default:
        return QWidget::keyPressEvent(event);
    }
    Q_EMIT picked(qs(row->stop), outlet);
}

FlowPage::FlowPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_board(new FlowBoard(open, nullptr))
    , m_summary(new QLabel(this))
    , m_compared(new QLabel(this))
{
    setObjectName(QStringLiteral("flowPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    m_summary->setFont(textFont(TextSize::Body, true));
    m_summary->setObjectName(QStringLiteral("flow.summary"));
    column->addWidget(m_summary);
    auto *scroll = scrolled(m_board, this);
    column->addWidget(scroll, 1);
    m_compared->setObjectName(QStringLiteral("flow.compared"));
    m_compared->setWordWrap(true);
    m_compared->hide();
    column->addWidget(m_compared);
    connect(m_board, &FlowBoard::picked, this, [this](const QString &stop, int outlet) {
        m_outlet = outlet;
        m_stop = stop.toStdString();
        m_open.selectStop(stop);
        refresh();
        Q_EMIT changed();
    });
}

void FlowPage::reset()
{
    m_compared->hide();
}

void FlowPage::refresh()
{
    const std::string selected = m_open.selectedStop().toStdString();
    if (selected != m_stop) {
        m_stop = selected;
        m_outlet = 0;
    }
    int seen = 0, all = 0;
    const auto flows = standing(m_open.build().flows);
    for (const Stop &s : m_open.build().engine.stops)
        if (shown(s)) {
            const FlowProof p = flowProof(m_open.build(), s, flows);
            seen += p.seen;
            all += static_cast<int>(p.outlets.size());
        }
    m_summary->setText(tr("Flow checked at %1 of %2 outlets").arg(seen).arg(all));
    m_board->choose(m_stop, m_outlet);
    m_board->relayout();
}

void FlowPage::record(const std::string &saw)
{
    FlowSeen f;
    f.stop = m_stop;
    f.outlet = m_outlet;
    f.saw = saw;
    f.means = flowMeans()[static_cast<size_t>(m_means)];
    f.oil = m_open.build().oil.grade;
    f.filter = m_filter;
    f.oil_c = m_oil_c;
    f.pressure_kpa = m_pressure_kpa;
    f.litres = m_litres;
    f.seconds = m_seconds;
    saidIfRefused(m_open.record(f));
}

PanelContent FlowPage::panel()
{
    PanelContent out;
    const Stop *stop = m_open.build().engine.find(m_stop);
    if (!stop)
        return out;
    const FlowProof proof = flowProof(m_open.build(), *stop);
    const bool many = proof.outlets.size() > 1;
    out.push_back(
        PanelTitle { m_outlet > 0 ? qs(proof.outlets[static_cast<size_t>(m_outlet) - 1].name)
                         : many   ? tr("%1, all %2").arg(qs(stop->name)).arg(proof.outlets.size())
                                  : qs(stop->name),
                     qs(proof.text),
                     {} });
    if (!shown(*stop)) {
        out.push_back(PanelText { tr("No oil comes out here to be seen."), Tone::Muted });
        return out;
    }
    for (const auto &[id, word, text] : { std::tuple("flow.flows", "flows", tr("Oil comes")),
                                          std::tuple("flow.weak", "weak", tr("Weak")),
                                          std::tuple("flow.dry", "dry", tr("Nothing comes")) })
        out.push_back(PanelButton { QString::fromLatin1(id), text,
                                    [this, saw = std::string(word)] { record(saw); } });
    conditions(out);
    history(*stop, out);
    out.push_back(PanelRule {});
    out.push_back(PanelButton { QStringLiteral("flow.compare"), tr("Compare with another build…"),
                                [this] { askOther(); } });
    return out;
}

void FlowPage::askOther()
{
    const QString path = QFileDialog::getOpenFileName(this, tr("Build to compare with"), {},
                                                      tr("Mild Path builds (*.mildpath)"));
    if (!path.isEmpty())
        compareWith(path);
}

void FlowPage::conditions(PanelContent &out)
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("How it is looked for") });
    PanelChoice means { QStringLiteral("flow.means"), tr("pressure by"), {}, m_means, {} };
    for (const std::string_view m : flowMeans())
        means.options << meansWord(std::string(m));
    means.chosen = [this](int i) -> Result<void> {
        m_means = i;
        Q_EMIT changed();
        return {};
    };
    out.push_back(std::move(means));
    out.push_back(PanelText { cautionOf(flowMeans()[static_cast<size_t>(m_means)]), Tone::Warn });
    out.push_back(PanelWord { QStringLiteral("flow.filter"), tr("filter fitted"), qs(m_filter),
                              [this](const QString &text) -> Result<void> {
                                  m_filter = text.trimmed().toStdString();
                                  return {};
                              } });
    const auto field
        = [&](const char *id, const QString &label, Dimension dimension, const std::string &unit,
              int decimals, std::optional<double> si, std::function<void(double)> keep) {
              out.push_back(PanelField { QString::fromLatin1(id), label, dimension, unit, decimals,
                                         si, [keep](double v) -> Result<void> {
                                             if (!(v > -100 && v < 1e8))
                                                 return fail("", "cannot be");
                                             keep(v);
                                             return {};
                                         } });
          };
    field("flow.oil_c", tr("oil at"), Dimension::Temperature, "°C", 0, m_oil_c,
          [this](double c) { m_oil_c = c; });
    field("flow.pressure", tr("pressure held"), Dimension::Pressure, "bar", 2,
          m_pressure_kpa ? std::optional(*m_pressure_kpa * 1e3) : std::nullopt,
          [this](double pa) { m_pressure_kpa = pa / 1e3; });
    field("flow.caught", tr("caught"), Dimension::Volume, "l", 2,
          m_litres ? std::optional(*m_litres * 1e-3) : std::nullopt,
          [this](double m3) { m_litres = m3 * 1e3; });
    field("flow.seconds", tr("in"), Dimension::Time, "s", 0, m_seconds,
          [this](double s) { m_seconds = s; });
    out.push_back(
        PanelText { tr("Oil in it: %1. Two engines compare only with the same oil and the "
                       "same filter.")
                        .arg(qs(m_open.build().oil.grade)),
                    Tone::Muted });
}

void FlowPage::history(const Stop &stop, PanelContent &out) const
{
    bool first = true;
    for (const FlowSeen *f : standing(m_open.build().flows)) {
        if (f->stop != stop.id || (m_outlet > 0 && f->outlet > 0 && f->outlet != m_outlet))
            continue;
        if (first)
            out.push_back(PanelRule {});
        first = false;
        const auto names = flowOutlets(m_open.build(), stop);
        const QString where = f->outlet > 0 ? qs(names[static_cast<size_t>(f->outlet) - 1])
            : names.size() > 1              ? tr("all")
                                            : QString();
        const QString saw = f->saw == "flows" ? tr("oil comes")
            : f->saw == "weak"                ? tr("only little")
                                              : tr("nothing comes");
        out.push_back(PanelVerdict {
            markOfSight(f->saw), where.isEmpty() ? saw : where + QStringLiteral(": ") + saw,
            meansWord(f->means) + (f->oil.empty() ? QString() : QStringLiteral(", ") + qs(f->oil))
                + (f->filter.empty() ? QString() : QStringLiteral(", ") + qs(f->filter))
                + QStringLiteral(", ") + qs(whoText(f->by)) });
        out.push_back(PanelButton {
            QStringLiteral("flow.takeBack.") + qs(f->id), tr("Take back"),
            [open = &m_open, id = f->id] { saidIfRefused(open->takeBack("flows", id)); } });
    }
}

QString FlowPage::compareWith(const QString &path)
{
    const auto other = loadBuild(path.toStdString());
    QString text;
    if (!other) {
        const Error &e = other.error().errors.front();
        text = path + QStringLiteral(": ") + qs(e.place) + QStringLiteral(": ") + qs(e.message);
    } else {
        const FlowComparison c = compareFlows(m_open.build(), other->build);
        QStringList lines;
        lines << tr("Beside %1: %2 places seen on both")
                     .arg(qs(other->build.name))
                     .arg(c.pairs.size());
        for (const std::string &caution : c.cautions)
            lines << tr("not to be compared: %1").arg(qs(caution));
        QStringList differ;
        for (const FlowPair &p : c.pairs)
            if (p.here->saw != p.there->saw)
                differ << tr("%1 %2 here, %3 there")
                              .arg(qs(p.outlet), qs(p.here->saw), qs(p.there->saw));
            else if (p.here_l_min && p.there_l_min)
                differ << tr("%1 %2 and %3")
                              .arg(qs(p.outlet), inFileUnit(*p.here_l_min, "l/min"),
                                   inFileUnit(*p.there_l_min, "l/min"));
        lines << differ;
        text = lines.join(QStringLiteral("; "));
    }
    m_compared->setText(text);
    m_compared->show();
    return text;
}

} // namespace mildpath
