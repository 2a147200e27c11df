// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "assess/rules.h"
#include "open/openbuild.h"
#include "paint/figure.h"

#include <QAbstractButton>
#include <QWidget>

#include <optional>
#include <vector>

namespace mildpath {

/// What one cell of the strip says.
struct Readout
{
    QString id; ///< object name
    QString title;
    Shown value;
    QString was; ///< before the last edit; empty if the same
    QString detail;
    Mark mark;
    Place place = Place::Route; ///< that a click opens
    QString stop; ///< and the stop it selects; may be empty
};

/// The readouts of a document: only what is computed makes a cell.
std::vector<Readout> readoutsOf(const Build &build, const Assessment &now,
                                const Assessment *before);

class ReadoutCell : public QAbstractButton
{
    Q_OBJECT
public:
    explicit ReadoutCell(QWidget *parent);
    void set(const Readout &readout);
    const Readout &readout() const { return m_readout; }

protected:
    void paintEvent(QPaintEvent *) override;

private:
    Readout m_readout;
};

/// The strip at the bottom, always there.
class ReadoutStrip : public QWidget
{
    Q_OBJECT
public:
    explicit ReadoutStrip(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();

Q_SIGNALS:
    void benchAsked(mildpath::Place place, const QString &stop);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    OpenBuild &m_open;
    std::vector<ReadoutCell *> m_cells;
};

} // namespace mildpath
