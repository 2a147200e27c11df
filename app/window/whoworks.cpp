// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/whoworks.h"

#include "document/document.h"
#include "open/openbuild.h"
#include "paint/text.h"
#include "paint/theme.h"

#include <QDialogButtonBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

const QString nameKey = QStringLiteral("worker/name"), dayKey = QStringLiteral("worker/day"),
              askedKey = QStringLiteral("worker/asked");

std::string today()
{
    return OpenBuild::now().substr(0, 10);
}

} // namespace

WhoWorksDialog::WhoWorksDialog(const std::vector<std::string> &people, QWidget *parent)
    : QDialog(parent)
    , m_other(new QLineEdit(this))
{
    setObjectName(QStringLiteral("whoWorks"));
    setWindowTitle(tr("Who works"));
    auto *column = new QVBoxLayout(this);
    column->setSpacing(8);
    auto *title = new QLabel(tr("Who works on it today?"), this);
    title->setFont(textFont(TextSize::Body, true));
    column->addWidget(title);
    column->addWidget(new QLabel(tr("What is entered carries the name."), this));
    for (size_t i = 0; i < people.size(); ++i) {
        auto *button = new QPushButton(qs(people[i]), this);
        button->setObjectName(QStringLiteral("who%1").arg(i));
        button->setAutoDefault(false);
        connect(button, &QPushButton::clicked, this, [this, name = people[i]] { pick(qs(name)); });
        column->addWidget(button);
    }
    m_other->setObjectName(QStringLiteral("who.other"));
    m_other->setPlaceholderText(people.empty() ? tr("name, as you sign") : tr("somebody else"));
    m_other->setAccessibleName(tr("Name"));
    column->addWidget(m_other);
    auto *box = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel, this);
    box->button(QDialogButtonBox::Cancel)->setText(tr("Not now"));
    column->addWidget(box);
    connect(box, &QDialogButtonBox::accepted, this, [this] { pick(m_other->text()); });
    connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
    if (people.empty())
        m_other->setFocus();
}

void WhoWorksDialog::pick(const QString &name)
{
    m_picked = name.trimmed().toStdString();
    if (!m_picked.empty())
        accept();
    else
        m_other->setFocus();
}

WhoWorks::WhoWorks(OpenBuild &open, QWidget *parent)
    : QToolButton(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("worker"));
    setPopupMode(QToolButton::InstantPopup);
    setToolButtonStyle(Qt::ToolButtonTextOnly);
    setAutoRaise(true);
    setMenu(new QMenu(tr("Who works"), this));
    connect(menu(), &QMenu::aboutToShow, this, &WhoWorks::fillMenu);
    connect(&m_open, &OpenBuild::workerChanged, this, [this] {
        if (!m_open.pickedWorker().empty()) { // for the next build of the day
            QSettings settings;
            settings.setValue(nameKey, qs(m_open.pickedWorker()));
            settings.setValue(dayKey, qs(today()));
        }
        say();
    });
    connect(&m_open, &OpenBuild::opened, this, &WhoWorks::follow);
    m_open.setWorkerQuestion([this] {
        const bool asked = QSettings().value(askedKey).toString().toStdString() == today();
        return asked ? std::string() : ask();
    });
    say();
}

std::vector<std::string> WhoWorks::people() const
{
    std::vector<std::string> out;
    for (const Person *p : standing(m_open.build().people))
        out.push_back(p->name);
    return out;
}

void WhoWorks::follow()
{
    const QSettings settings;
    const std::string name = settings.value(nameKey).toString().toStdString();
    const bool still = settings.value(dayKey).toString().toStdString() == today();
    const auto known = people();
    if (still && std::ranges::find(known, name) != known.end())
        (void)m_open.pickWorker(name);
    say();
}

std::string WhoWorks::lastName() const
{
    return QSettings().value(nameKey).toString().toStdString();
}

std::string WhoWorks::ask()
{
    QSettings().setValue(askedKey, qs(today()));
    WhoWorksDialog dialog(people(), window());
    return dialog.exec() == QDialog::Accepted ? dialog.name() : std::string();
}

void WhoWorks::pick(const std::string &name)
{
    static_cast<void>(m_open.pickWorker(name)); // refused, nobody is picked, which is shown
}

void WhoWorks::fillMenu()
{
    menu()->clear();
    for (const std::string &name : people()) {
        QAction *action = menu()->addAction(qs(name), this, [this, name] { pick(name); });
        action->setCheckable(true);
        action->setChecked(name == m_open.pickedWorker());
    }
    menu()->addSeparator();
    menu()->addAction(tr("Somebody else…"), this, [this] {
        if (const std::string name = ask(); !name.empty())
            pick(name);
    });
}

void WhoWorks::say()
{
    const std::string &name = m_open.pickedWorker();
    setText(name.empty() ? tr("Who works?") : qs(name));
    setToolTip(tr("Who works on it: what is entered carries the name"));
    setAccessibleName(name.empty() ? tr("Who works: nobody picked")
                                   : tr("Who works: %1").arg(qs(name)));
}

} // namespace mildpath
