// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

#include <QWidget>

namespace mildpath {

class EntryForm;

/// Noises by when they are heard and up to which speed.
class HeardView : public QWidget
{
    Q_OBJECT
public:
    explicit HeardView(QWidget *parent = nullptr);
    void show(const Build &build, const std::string &chosen);

Q_SIGNALS:
    void picked(const QString &id);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    struct Bar
    {
        std::string id;
        QString text;
        size_t when;
        double to_rpm;
        bool speaks; ///< for a fault in the table
        QRectF area {};
    };
    void layOut();

    std::vector<Bar> m_bars;
    double m_most_rpm = 6000;
    std::string m_chosen;
};

/// The log of noises and other symptoms; what it says goes into the diagnosis.
class HeardPage : public Page
{
    Q_OBJECT
public:
    HeardPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "heard", tr("Noises") } }; }
    QString title() const override { return tr("Noises"); }
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;
    void takeFocus() override;

private:
    void record();
    const Symptom *chosen() const;

    std::string m_heard; ///< id of the chosen one
    EntryForm *m_form;
    HeardView *m_view;
};

} // namespace mildpath
