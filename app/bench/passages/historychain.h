// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "open/openbuild.h"

#include <QWidget>

class QHBoxLayout;
class QLabel;

namespace mildpath {

/// What happened to the chosen passage as a chain, what is still asked for, and the keys that
/// record the next link.
class HistoryChain : public QWidget
{
    Q_OBJECT
public:
    explicit HistoryChain(OpenBuild &open, QWidget *parent = nullptr);
    void show(const std::string &passage);
    void refresh();

Q_SIGNALS:
    void refused(const QString &reason);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    struct Link
    {
        Mark mark;
        QString title, detail;
        bool pending;
    };
    void addKey(QHBoxLayout *row, const QString &name, const QString &text, const QString &tip,
                const CleanEvent &event);
    void record(CleanEvent event);

    OpenBuild &m_open;
    std::string m_passage;
    QString m_title, m_detail, m_reason;
    std::vector<Link> m_links;
};

} // namespace mildpath
