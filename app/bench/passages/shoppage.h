// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QTextDocument>
#include <QWidget>

#include <memory>

class QComboBox;
class QLabel;
class QLineEdit;
class QTextBrowser;

namespace mildpath {

class RowList;

/// What goes to the machine shop: the work asked for, and the sheet that goes with the parts.
class ShopPage : public QWidget
{
    Q_OBJECT
public:
    explicit ShopPage(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    PanelContent panel();
    /// Errors: as writeShopSheet().
    Result<void> saveSheet(const QString &path);

Q_SIGNALS:
    void changed();

private:
    void addJob();
    void pickFile();
    void cameBack();
    const ShopJob *chosen() const;
    void say(const Result<void> &done);

    OpenBuild &m_open;
    QComboBox *m_job;
    QLineEdit *m_note, *m_prove;
    QLabel *m_refusal;
    RowList *m_rows;
    QTextBrowser *m_sheet;
    std::unique_ptr<QTextDocument> m_document;
    std::vector<std::string> m_ids;
    std::string m_chosen;
};

} // namespace mildpath
