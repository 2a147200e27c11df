// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;

namespace mildpath {

class RowList;

/// Every plug of the engine, hidden ones in rows of their own: drawn, left with a reason, or in,
/// sealed and seen by somebody.
class PlugLedger : public QWidget
{
    Q_OBJECT
public:
    explicit PlugLedger(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    void show(const std::string &plug);
    const std::string &shown() const { return m_plug; }
    /// How it comes out, and what it is; for the side panel.
    PanelContent panel() const;

Q_SIGNALS:
    void plugChosen(const QString &id);

private:
    void record(const char *kind, bool seen);
    void addFields(const Plug &plug, PanelContent &out) const;

    OpenBuild &m_open;
    RowList *m_rows;
    QLineEdit *m_word;
    QLabel *m_title, *m_refusal;
    std::vector<QPushButton *> m_keys;
    std::string m_plug;
};

} // namespace mildpath
