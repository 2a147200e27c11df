// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"
#include "quantity/units.h"

#include <QDialog>

#include <string>
#include <utility>
#include <vector>

class QCheckBox;
class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace mildpath {

class QuantityField;

/// The five things asked of a new build, each of which can wait: who and what, the engine, oil and
/// use, whose limits, the pump.
class FirstQuestions : public QDialog
{
    Q_OBJECT
public:
    FirstQuestions(const Build &build, const std::string &worker, QWidget *parent);
    /// What was answered, as edits; what was left alone is none of them.
    std::vector<Edit> edits() const;
    /// Who works, as named; empty: nobody.
    std::string worker() const;
    int page() const;

private:
    QFormLayout *addPage(const QString &title, const QString &about);
    void whoPage(const std::string &worker);
    void enginePage();
    void oilPage();
    void limitsPage();
    void pumpPage();
    QuantityField *field(QFormLayout *form, const char *name, const QString &label,
                         Dimension dimension, const char *unit, int decimals,
                         std::optional<double> si);
    void go(int page);
    void jobEdits(std::vector<Edit> &out) const;

    /// A number as it was, and where it goes when it is another.
    struct Number
    {
        QuantityField *field;
        std::optional<double> before;
        std::function<Edit(double si)> edit;
    };
    struct LimitRow
    {
        std::string family;
        QuantityField *least, *most;
    };

    const Build m_build;
    QStackedWidget *m_pages;
    QLabel *m_step;
    QPushButton *m_back, *m_next;
    std::vector<QString> m_titles;
    QLineEdit *m_name = nullptr, *m_worker = nullptr, *m_number = nullptr;
    QCheckBox *m_alone = nullptr;
    std::vector<std::pair<std::string, QCheckBox *>> m_jobs; ///< letter
    QComboBox *m_oil = nullptr, *m_whose = nullptr;
    QComboBox *m_load = nullptr, *m_returns = nullptr; ///< null: not asked here
    std::vector<Number> m_numbers;
    std::vector<LimitRow> m_limits;
};

} // namespace mildpath
