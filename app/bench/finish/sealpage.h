// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sealreport.h"
#include "shell/page.h"

#include <QWidget>

namespace mildpath {

class EntryForm;

/// Blow-by and crankcase vacuum over speed, before and after on one picture.
class SealView : public QWidget
{
    Q_OBJECT
public:
    explicit SealView(QWidget *parent = nullptr);
    void show(const SealReport &report);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    void paintKind(QPainter &p, const std::string &kind, const QString &title,
                   const QRectF &card) const;
    SealReport m_report;
};

/// Evidence of how the rings seal.
class SealPage : public Page
{
    Q_OBJECT
public:
    SealPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "ring_seal", tr("Ring seal") } }; }
    QString title() const override { return tr("How the rings seal"); }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;
    void takeFocus() override;

private:
    void showKind();
    void record();

    SealReport m_report;
    EntryForm *m_form;
    SealView *m_view;
};

} // namespace mildpath
