// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "document/families.h"
#include "entry/quantityfield.h"
#include "open/openbuild.h"

#include <QWidget>

#include <map>
#include <vector>

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace mildpath {

class GaugeNeedle;
class SerialGauge;
class ShellView;
class StripChart;

/// The entry bench of one size: its planned readings as cells, in the order they are taken, by any
/// method the family knows; from the keyboard or from a gauge.
class ReadingEntry : public QWidget
{
    Q_OBJECT
public:
    /// @param compact  without the picture of the shell and the part temperatures
    ReadingEntry(OpenBuild &open, SerialGauge *gauge, bool compact, QWidget *parent = nullptr);

    void setItem(const SizeItem &item);
    void refresh();
    QuantityField *cell(size_t position) const { return m_cells[position]; }
    size_t positions() const { return m_plan.size(); }
    /// To the first position without a reading, or the first.
    void takeFocus();
    void setMethod(const std::string &id);
    std::string method() const;
    /// Readings at each position before it moves on; their mean is stored with its spread.
    void setRepeats(int count);

    /// Text copied from a spreadsheet: numbers fill the plan from the cell in hand.
    /// @return false if it holds no numbers
    bool paste(const QString &text);
    /// The readings of this item as tab-separated text.
    QString copied() const;

Q_SIGNALS:
    /// The last planned reading was taken, or one went back before the first.
    void pastEnd();
    void beforeStart();

protected:
    void paintEvent(QPaintEvent *) override;
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void makeHead(QVBoxLayout *column);
    void makeMethodRow(QVBoxLayout *column);
    void makeBody(QVBoxLayout *column);
    void makeFeelRow();
    QuantityField *makeCell(size_t position);
    QuantityField *smallField(const QString &name, const QString &label, Dimension dimension,
                              const std::string &unit, int width);
    void layCells();
    void chooseMethod();
    void showMethod();
    void fillInstruments(const QString &inHand);
    Reading blank(size_t position) const;
    void store(size_t position, double si, const std::vector<double> &repeats_m = {});
    void keep(Reading reading);
    void withdraw(size_t position);
    void go(size_t position, int by);
    void takeFromGauge(double mean_m);
    int positionInHand() const;
    ReadingPlace placeAt(size_t position) const;
    void say(const QString &text, bool refused);
    void refreshCells();
    void refreshVerdict();
    QString historyOf(const Reading &reading) const;
    const GaugedSize *size() const;

    OpenBuild &m_open;
    SerialGauge *m_gauge;
    bool m_compact;
    std::string m_stop, m_name, m_method;
    const Family *m_family = nullptr;
    int m_item = 1;
    std::pair<std::string, std::optional<bool>> m_capOf; ///< stop and card the tick was set by
    std::vector<ReadingPosition> m_plan;
    std::map<std::string, std::string> m_chosen; ///< method by family, as the user last had it
    std::vector<double> m_repeats_m; ///< taken so far at m_repeatsAt
    int m_repeatsAt = -1;

    QLabel *m_title, *m_progress, *m_form, *m_message, *m_verdict, *m_next;
    QLabel *m_partLabels[2], *m_journalLabel;
    QComboBox *m_methods, *m_repeatCount;
    QComboBox *m_instrument;
    QuantityField *m_u, *m_journal, *m_housingT, *m_journalT;
    QCheckBox *m_overHole, *m_cap;
    QWidget *m_feelRow;
    ShellView *m_shell;
    StripChart *m_strip;
    GaugeNeedle *m_needle;
    QGridLayout *m_grid;
    std::vector<QuantityField *> m_cells; ///< as many as the longest plan needs
    std::vector<QLabel *> m_cellNames;
    QLabel *m_rowNames[2];
};

} // namespace mildpath
