// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDialog>
#include <QToolButton>

#include <string>
#include <vector>

class QLineEdit;

namespace mildpath {

class OpenBuild;

/// Asks who works: one of the people of the build, or another by name.
class WhoWorksDialog : public QDialog
{
    Q_OBJECT
public:
    WhoWorksDialog(const std::vector<std::string> &people, QWidget *parent);
    /// Empty: nobody.
    std::string name() const { return m_picked; }

private:
    void pick(const QString &name);

    QLineEdit *m_other;
    std::string m_picked;
};

/// Who works now, at the head of the window: the people of the build to pick from. Asked once a
/// day, when something is entered and nobody is picked; never taken from the account.
class WhoWorks : public QToolButton
{
    Q_OBJECT
public:
    WhoWorks(OpenBuild &open, QWidget *parent);
    /// Another build stands open: who was picked today works on it if he is one of its people.
    void follow();
    void pick(const std::string &name);
    /// Who was picked last, on any build; empty: nobody.
    std::string lastName() const;
    /// Puts the question. @return empty: nobody said, and it is not asked again today
    std::string ask();

private:
    void say();
    void fillMenu();
    std::vector<std::string> people() const;

    OpenBuild &m_open;
};

} // namespace mildpath
