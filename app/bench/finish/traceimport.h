// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "paint/card.h"
#include "storage/tracefile.h"

class QLabel;
class QPushButton;

namespace mildpath {

class EntryForm;

/// How a file of a trace is to be read: guessed, shown, corrected in place.
class TraceImportCard : public CardWidget
{
    Q_OBJECT
public:
    TraceImportCard(OpenBuild &open, QWidget *parent);
    /// @return why the file cannot be a trace; empty: it is shown
    QString load(const QString &path);

Q_SIGNALS:
    void taken();
    void cancelled();

private:
    TraceFormat format() const;
    void check();
    void take();

    OpenBuild &m_open;
    QString m_name;
    std::string m_text;
    bool m_comma = false;
    TraceImport m_trace;
    EntryForm *m_form;
    QLabel *m_title, *m_said;
    QPushButton *m_take;
};

} // namespace mildpath
