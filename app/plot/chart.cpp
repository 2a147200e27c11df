// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/chart.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {

std::optional<double> heightAt(const ChartLine &line, double x)
{
    return heightAt(line, line.y, x);
}

std::optional<double> heightAt(const ChartLine &line, const std::vector<double> &edge, double x)
{
    const auto &xs = line.x;
    if (xs.empty() || x < xs.front() || x > xs.back())
        return std::nullopt;
    const auto after = static_cast<size_t>(std::lower_bound(xs.begin(), xs.end(), x) - xs.begin());
    if (xs[after] == x || after == 0)
        return edge[after];
    const double part = (x - xs[after - 1]) / (xs[after] - xs[after - 1]);
    return edge[after - 1] + part * (edge[after] - edge[after - 1]);
}

ChartTable tableOf(const Chart &chart)
{
    ChartTable out;
    std::map<double, std::map<qsizetype, double>> cells; // x → column → y
    out.head << chart.x.title();
    const auto column = [&](const QString &name) {
        const qsizetype at = out.head.indexOf(name);
        if (at > 0)
            return at;
        out.head << name;
        return out.head.size() - 1;
    };
    for (const ChartLine &l : chart.lines) {
        const QString name = l.name.isEmpty() ? chart.y.title() : l.name;
        const auto fill = [&](const QString &head, const std::vector<double> &ys) {
            if (ys.empty())
                return;
            const qsizetype at = column(head);
            for (size_t i = 0; i < l.x.size(); ++i)
                cells[l.x[i]][at] = ys[i];
        };
        if (l.width > 0)
            fill(name, l.y);
        fill(tr("%1, low").arg(name), l.low);
        fill(tr("%1, high").arg(name), l.high);
    }
    for (const ChartDot &d : chart.dots)
        cells[d.x][column(d.name.isEmpty() ? tr("points") : d.name)] = d.y;
    for (const auto &[x, row] : cells) {
        QStringList line { chart.x.inWords(x) };
        for (qsizetype c = 1; c < out.head.size(); ++c) {
            const auto y = row.find(c);
            line << (y == row.end() ? QString() : chart.y.inWords(y->second));
        }
        out.rows.push_back(line);
    }
    return out;
}

double roundedUp(double most, Shows as, int count)
{
    const std::vector<double> ticks = niceTicks(0, most, as, count);
    if (ticks.size() < 2)
        return most;
    const double step = ticks[1] - ticks[0];
    return ticks.back() + 1e-9 * step >= most ? ticks.back() : ticks.back() + step;
}

} // namespace mildpath
