// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"
#include "quantity/units.h"

#include <QWidget>

#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

class QLabel;
class QComboBox;
class QGridLayout;
class QHBoxLayout;

class QLineEdit;

namespace mildpath {

class QuantityField;

/// Fields for one entry of the logbook, a label over each (or left of it): Enter moves on, in the
/// last one it submits; Backspace in an empty one goes back. What is refused is said below, and
/// kept.
class EntryForm : public QWidget
{
    Q_OBJECT
public:
    /// @param prefix   of the fields' object names: "cut" → "cut.note"
    /// @param columns  0: one below the other with their labels on the left
    EntryForm(const QString &prefix, int columns, QWidget *parent);

    void addNumber(const char *key, const QString &label, Dimension dimension,
                   const std::string &unit, int decimals);
    /// A number of a record, in the file's unit; what it is and may be follows from its
    /// description.
    void addNumber(const RecordType &type, const char *key, const QString &label, int decimals);
    void addWord(const char *key, const QString &label, const QString &placeholder = {});
    /// @param options  (id, word)
    void addChoice(const char *key, const QString &label,
                   const std::vector<std::pair<QString, QString>> &options);
    /// Rows of like numbers under common heads, beside the fields above: "COLUMN.ROW".
    struct MatrixRow
    {
        const char *key;
        QString label;
        Dimension dimension;
        std::string unit;
        int decimals;
    };
    void addMatrix(const std::vector<MatrixRow> &rows,
                   const std::vector<std::pair<QString, QString>> &columns);
    /// Goes on in a new row.
    void newRow();
    /// The next field stands where the last one does: only one of them is shown at a time.
    void sameCell();

    /// In the field's unit, as typed; absent where it is empty.
    std::optional<double> number(const char *key) const;
    /// Puts what was typed into the members whose numbers stand here by their description and are
    /// shown; what is empty stays as it is.
    template <class T> void fill(T &record) const { fillRecord(recordType<T>(), &record); }
    void setNumber(const char *key, std::optional<double> value);
    std::string word(const char *key) const;
    void setWord(const char *key, const QString &text);
    std::string choice(const char *key) const;
    QComboBox *choiceBox(const char *key) const;
    /// Whether a field is to be asked for at all.
    void setShown(const char *key, bool shown);
    /// Empties every field that is typed; choices stay.
    void clear();
    /// What was wrong with the entry; empty: nothing.
    void say(const QString &refusal);
    void focusFirst();

Q_SIGNALS:
    void submitted();
    void changed(); ///< a choice, or something typed and stored

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    struct Field
    {
        QLabel *label;
        QWidget *widget;
        std::string unit {};
        Dimension dimension = Dimension::Number;
    };
    QuantityField *makeNumber(const QString &label, Dimension dimension, const std::string &unit,
                              int decimals);
    void keep(const std::string &key, const QString &spoken, Field field);
    void place(const char *key, const QString &label, QWidget *widget, Field field);
    void step(QWidget *from, int by);
    void fillRecord(const RecordType &type, void *record) const;

    QString m_prefix;
    int m_columns, m_row = 0, m_column = 0;
    QGridLayout *m_grid;
    QHBoxLayout *m_beside;
    QLabel *m_refusal;
    std::map<std::string, Field> m_fields;
    std::vector<QWidget *> m_order;
    std::vector<std::string> m_described; ///< keys that came by a description
};

/// A card with a form and its button "Record", which submits the form.
QWidget *entryCard(EntryForm *form, const QString &buttonName, QWidget *parent);

} // namespace mildpath
