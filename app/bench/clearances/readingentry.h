// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "entry/quantityfield.h"
#include "shell/openbuild.h"

#include <QWidget>

#include <vector>

class QGridLayout;
class QLabel;

namespace mildpath {

class ShellView;

/// The entry bench of one bearing: its planned readings as cells, in the order they are taken.
class ReadingEntry : public QWidget
{
    Q_OBJECT
public:
    explicit ReadingEntry(OpenBuild &open, QWidget *parent = nullptr);

    void setStop(const QString &stop);
    void refresh();
    QuantityField *cell(size_t position) const { return m_cells[position]; }

Q_SIGNALS:
    /// The last planned reading was taken, or one went back before the first.
    void pastEnd();
    void beforeStart();

protected:
    void paintEvent(QPaintEvent *) override;
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void makeCells(QGridLayout *grid);
    QuantityField *temperatureField(const QString &name, const QString &label);
    void store(size_t position, double si);
    void withdraw(size_t position);
    void go(size_t position, int by);
    void say(const QString &text, bool refused);
    void refreshVerdict();

    OpenBuild &m_open;
    QString m_stop;
    QLabel *m_title, *m_method, *m_progress, *m_form, *m_message, *m_verdict, *m_next;
    QuantityField *m_housing, *m_journal;
    ShellView *m_shell;
    std::vector<QuantityField *> m_cells; ///< as in readingPlan()
};

} // namespace mildpath
