// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/card.h"
#include "storage/runfile.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QPushButton;
class QTableWidget;

namespace mildpath {

/// Which column of somebody else's log is what: guessed, shown, corrected in place.
class RunImportCard : public CardWidget
{
    Q_OBJECT
public:
    explicit RunImportCard(QWidget *parent = nullptr);
    /// @return why the file cannot be a log; empty: its columns are shown
    QString load(const QString &path);

Q_SIGNALS:
    void taken(const mildpath::RunImport &run, const QString &kind, const QString &from);
    void cancelled();

private:
    QComboBox *addChoice(QGridLayout *grid, int row, const QString &label, const QString &name,
                         const QStringList &units, QComboBox **unit);
    RunColumns columns() const;
    void check();
    void take();

    QString m_path;
    RunTable m_table;
    QLabel *m_title, *m_said;
    QComboBox *m_time, *m_pressure, *m_rpm, *m_oil, *m_kind;
    QComboBox *m_timeUnit, *m_pressureUnit, *m_oilUnit;
    QTableWidget *m_preview;
    QPushButton *m_take;
    bool m_comma = false;
};

} // namespace mildpath
