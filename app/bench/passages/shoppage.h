// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

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
class ShopPage : public Page
{
    Q_OBJECT
public:
    explicit ShopPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override
    {
        return { { "machine_shop", tr("Machine shop") } };
    }
    QString title() const override { return tr("Machine shop"); }
    void refresh() override;
    PanelContent panel() override;
    /// Errors: as writeShopSheet().
    Result<void> saveSheet(const QString &path);

private:
    void addJob();
    void pickFile();
    void cameBack();
    const ShopJob *chosen() const;
    void say(const Result<void> &done);

    QComboBox *m_job;
    QLineEdit *m_note, *m_prove;
    QLabel *m_refusal;
    class FallBackNote *m_fallBack;
    RowList *m_rows;
    QTextBrowser *m_sheet;
    std::unique_ptr<QTextDocument> m_document;
    std::vector<std::string> m_ids;
    std::string m_chosen;
};

} // namespace mildpath
