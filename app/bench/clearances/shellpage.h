// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"
#include "study/shellplan.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace mildpath {

class QuantityField;

/// Every journal on one clearance axis: what is fitted and what the best choice of shells gives.
class ShellPicture : public QWidget
{
public:
    explicit ShellPicture(OpenBuild &open, QWidget *parent = nullptr);
    /// @param plan  stays while it is shown; null: none
    void setPlan(const std::string &family, const ShellPlan *plan);
    void setStop(const std::string &stop);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    void paintRow(QPainter &p, size_t row, double y, double from, double perUm) const;

    OpenBuild &m_open;
    std::string m_family, m_stop;
    const ShellPlan *m_plan = nullptr;
};

/// Which shells bring every journal nearest to its target, from the classes and stock entered.
class ShellPage : public Page
{
    Q_OBJECT
public:
    explicit ShellPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "shells", tr("Shells") } }; }
    QString title() const override { return tr("Choice of shells"); }
    void refresh() override;
    PanelContent panel() override;

private:
    void makeJournalRow(QVBoxLayout *column);
    void makeClassRow(QVBoxLayout *column);
    void showJournal();
    void storeJournal();
    void addClass();
    void refuse(const QString &why);
    void fit();
    const ShellStock *stock() const;

    ShellPicture *m_picture;
    QLabel *m_message;
    QPushButton *m_fit;
    std::vector<QPushButton *> m_families;
    QLabel *m_journal;
    /// Fitted upper and lower, stamped housing and journal, of the journal in hand.
    QComboBox *m_of[4];
    QComboBox *m_classKind;
    QLineEdit *m_className;
    QuantityField *m_classFrom, *m_classTo;
    std::string m_stop;
    std::string m_family = "main";
    std::shared_ptr<const Answered<Result<ShellPlan>>> m_answer; ///< shown
    const ShellPlan *m_plan = nullptr; ///< of it; null: there is none
};

} // namespace mildpath
