// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/foundpage.h"

#include "assess/cleanmarks.h"
#include "bench/passages/findway.h"
#include "checks/judgement.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/photostrip.h"
#include "entry/refusal.h"
#include "entry/rowlist.h"
#include "paint/card.h"
#include "quantity/dates.h"

#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <utility>

namespace mildpath {
namespace {

QString wordsOf(const DebrisFind &f)
{
    QStringList out;
    for (const std::string *word : { &f.size, &f.colour, &f.hardness })
        if (!word->empty())
            out << qs(*word);
    if (!f.magnetic.empty())
        out << (f.magnetic == "yes" ? FoundPage::tr("magnetic") : FoundPage::tr("not magnetic"));
    return out.join(QStringLiteral(", "));
}

QComboBox *wordCombo(const QString &name, const QString &spoken, const QString &none,
                     std::span<const std::string_view> words, QWidget *parent)
{
    auto *combo = new ArrowCombo(parent);
    combo->setObjectName(name);
    combo->setAccessibleName(spoken);
    combo->addItem(none, QString());
    for (const std::string_view w : words)
        combo->addItem(qs(w), qs(w));
    return combo;
}

std::string chosenWord(const QComboBox *combo)
{
    return combo->currentData().toString().toStdString();
}

} // namespace

FoundPage::FoundPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
{
    setObjectName(QStringLiteral("foundPage"));
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    auto *finds = new CardWidget(this), *signs = new CardWidget(this);
    row->addWidget(finds, 12);
    row->addWidget(signs, 8);
    makeFinds(finds);
    makeSigns(signs);
}

void FoundPage::makeFinds(QWidget *card)
{
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(14, 10, 12, 10);
    auto *title = new QLabel(tr("Found in passages, pan and filter"), card);
    title->setFont(textFont(TextSize::Body, true));
    column->addWidget(title);
    makeEntry(card, column);
    m_way = new FindWay(m_open, card);
    column->addWidget(m_way);
    m_rows = new RowList({ 0, 0.26, 0.64 }, 0, card);
    m_rows->setObjectName(QStringLiteral("findRows"));
    m_rows->setAccessibleName(tr("Found so far"));
    const auto pick = [this](int i) {
        m_find = m_ids[static_cast<size_t>(i)];
        refresh();
        Q_EMIT changed();
    };
    connect(m_rows, &RowList::picked, this, pick);
    connect(m_way, &FindWay::picked, this, pick);
    column->addWidget(m_rows);
    makeSettling(card, column);
    m_photos = new PhotoStrip(m_open, card);
    column->addWidget(m_photos);
    column->addStretch();
    auto *magnet = new QLabel(qs(magnetCaution()), card);
    magnet->setWordWrap(true);
    setTone(magnet, Theme::current().muted);
    column->addWidget(magnet);
}

void FoundPage::makeEntry(QWidget *card, QVBoxLayout *column)
{
    auto *first = new QHBoxLayout, *second = new QHBoxLayout;
    m_where = new ArrowCombo(card);
    m_where->setObjectName(QStringLiteral("find.where"));
    m_where->setAccessibleName(tr("where it lay"));
    first->addWidget(m_where, 1);
    m_place = new QLineEdit(card);
    m_place->setObjectName(QStringLiteral("find.place"));
    m_place->setPlaceholderText(tr("where there"));
    m_place->setAccessibleName(tr("where there"));
    first->addWidget(m_place, 1);
    column->addLayout(first);
    constexpr std::array<std::string_view, 2> yesNo { "yes", "no" };
    m_size = wordCombo(QStringLiteral("find.size"), tr("size"), tr("size"), debrisSizes(), card);
    m_colour = wordCombo(QStringLiteral("find.colour"), tr("colour"), tr("colour"), debrisColours(),
                         card);
    m_hardness = wordCombo(QStringLiteral("find.hardness"), tr("hardness"), tr("hardness"),
                           debrisHardnesses(), card);
    m_magnetic = wordCombo(QStringLiteral("find.magnetic"), tr("does a magnet take it"),
                           tr("magnet"), yesNo, card);
    for (QComboBox *c : { m_size, m_colour, m_hardness, m_magnetic }) {
        second->addWidget(c, 1);
        connect(c, &QComboBox::activated, this, &FoundPage::refresh);
    }
    auto *record = new QPushButton(tr("Record"), card);
    record->setObjectName(QStringLiteral("find.record"));
    connect(record, &QPushButton::clicked, this, &FoundPage::recordFind);
    second->addWidget(record);
    column->addLayout(second);
    m_guess = new QLabel(card);
    m_guess->setObjectName(QStringLiteral("find.guess"));
    m_guess->setWordWrap(true);
    column->addWidget(m_guess);
}

void FoundPage::makeSettling(QWidget *card, QVBoxLayout *column)
{
    auto *settle = new QHBoxLayout;
    m_settled = new QLineEdit(card);
    m_settled->setObjectName(QStringLiteral("find.settled"));
    m_settled->setPlaceholderText(tr("what was done about it"));
    m_settled->setAccessibleName(tr("what was done about the chosen find"));
    settle->addWidget(m_settled, 1);
    auto *done = new QPushButton(tr("Settled"), card);
    done->setObjectName(QStringLiteral("find.settle"));
    connect(done, &QPushButton::clicked, this, &FoundPage::settleFind);
    settle->addWidget(done);
    auto *photo = new QPushButton(tr("Add photo…"), card);
    photo->setObjectName(QStringLiteral("find.photo"));
    connect(photo, &QPushButton::clicked, this, &FoundPage::pickPhoto);
    settle->addWidget(photo);
    column->addLayout(settle);
    m_refusal = new QLabel(card);
    m_refusal->setObjectName(QStringLiteral("find.refusal"));
    m_refusal->setWordWrap(true);
    m_refusal->hide();
    column->addWidget(m_refusal);
}

void FoundPage::makeSigns(QWidget *card)
{
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(14, 10, 8, 10);
    auto *title = new QLabel(tr("What the parts showed when it was taken down"), card);
    title->setFont(textFont(TextSize::Body, true));
    column->addWidget(title);
    auto *scroll = new QScrollArea(card);
    scroll->setWidgetResizable(true);
    auto *page = new QWidget;
    m_signs = new QGridLayout(page);
    m_signs->setContentsMargins(0, 2, 8, 2);
    m_signs->setVerticalSpacing(5);
    scroll->setWidget(page);
    page->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
}

/// One line for every sign at every stop that can show it.
void FoundPage::fillSigns()
{
    std::string shape;
    for (const Stop &s : m_open.build().engine.stops)
        shape += s.id + s.name + ";";
    if (shape != m_shape) {
        m_shape = shape;
        while (QLayoutItem *item = m_signs->takeAt(0)) {
            delete item->widget();
            delete item;
        }
        m_boxes.clear();
        int row = 0;
        for (const SignKind &k : signKinds())
            for (const Stop &s : m_open.build().engine.stops) {
                if (s.kind != k.stopKind)
                    continue;
                QString words = qs(s.name) + QStringLiteral(": ") + qs(k.text).toLower();
                words.replace(u'&', QStringLiteral("&&")); // no key of its own
                auto *text = new QLabel(words, this);
                text->setWordWrap(true);
                text->setToolTip(qs(k.meaning) + QStringLiteral(". ") + qs(k.action));
                auto *box = new ArrowCombo(this);
                box->addItems({ tr("not looked"), tr("not there"), tr("there"), tr("settled") });
                box->setObjectName(QStringLiteral("sign.") + qs(s.id) + u'.' + qs(k.id));
                box->setAccessibleName(qs(s.name) + QStringLiteral(": ") + qs(k.text));
                box->setToolTip(text->toolTip());
                text->setBuddy(box);
                box->setMinimumWidth(104);
                m_signs->addWidget(text, row, 0);
                m_signs->addWidget(box, row++, 1);
                connect(box, &QComboBox::activated, this,
                        [this, stop = s.id, sign = std::string(k.id)](int i) {
                            setSign(stop, sign, i);
                        });
                m_boxes.push_back({ box, text, s.id, std::string(k.id) });
            }
        m_signs->setColumnStretch(0, 1);
        m_signs->setRowStretch(row, 1);
    }
    const Theme &t = Theme::current();
    for (const SignBox &b : m_boxes) {
        const Sign *s = standingSign(m_open.build().signs, b.stop, b.sign);
        b.box->setCurrentIndex(!s ? 0 : !s->there ? 1 : s->settled.empty() ? 2 : 3);
        const bool open = s && s->there && s->settled.empty();
        setTone(b.text, !open ? t.ink : findSignKind(b.sign)->holds ? t.hold : t.lookAgain);
    }
}

void FoundPage::setSign(const std::string &stop, const std::string &sign, int index)
{
    const Sign *before = standingSign(m_open.build().signs, stop, sign);
    Result<void> done;
    if (index == 0) {
        if (before)
            done = m_open.takeBack("signs", before->id);
    } else {
        Sign s;
        s.stop = stop;
        s.sign = sign;
        s.there = index != 1;
        if (index == 3)
            s.settled = "seen to";
        if (before)
            s.replaces = before->id;
        done = outcome(m_open.record(s));
    }
    say(done ? QString() : qs(done.error().message));
}

void FoundPage::say(const QString &refusal)
{
    m_refusal->setText(refusal);
    m_refusal->setVisible(!refusal.isEmpty());
    setTone(m_refusal, Theme::current().hold);
}

void FoundPage::recordFind()
{
    DebrisFind f;
    f.stop = chosenWord(m_where);
    f.place = m_place->text().trimmed().toStdString();
    f.size = chosenWord(m_size);
    f.colour = chosenWord(m_colour);
    f.hardness = chosenWord(m_hardness);
    f.magnetic = chosenWord(m_magnetic);
    if (f.colour.empty() || f.size.empty())
        return say(tr("Say at least its size and colour"));
    const auto done = m_open.record(f);
    say(done ? QString() : qs(done.error().message));
    if (!done)
        return;
    m_find = m_open.build().finds.back().id;
    m_place->clear();
    for (QComboBox *c : { m_size, m_colour, m_hardness, m_magnetic })
        c->setCurrentIndex(0);
    refresh();
    Q_EMIT changed();
}

const DebrisFind *FoundPage::chosen() const
{
    for (const DebrisFind *f : standing(m_open.build().finds))
        if (f->id == m_find)
            return f;
    return nullptr;
}

void FoundPage::settleFind()
{
    const DebrisFind *f = chosen();
    const QString how = m_settled->text().trimmed();
    if (!f)
        return say(tr("Choose the find first"));
    if (how.isEmpty())
        return say(tr("Say what was done about it"));
    DebrisFind next = *f;
    next.replaces = f->id;
    next.settled = how.toStdString();
    next.by.clear();
    next.at.clear(); // settled now
    const auto done = m_open.record(next);
    say(done ? QString() : qs(done.error().message));
    if (!done)
        return;
    m_settled->clear();
    m_find = m_open.build().finds.back().id;
    refresh();
    Q_EMIT changed();
}

void FoundPage::pickPhoto()
{
    const QString file = QFileDialog::getOpenFileName(this, tr("Photo of the find"), {},
                                                      tr("Pictures (*.png *.jpg *.jpeg)"));
    if (!file.isEmpty())
        say(addPhoto(file));
}

QString FoundPage::addPhoto(const QString &file)
{
    const DebrisFind *f = chosen();
    if (!f)
        return tr("Choose the find first");
    const auto name = takePhoto(m_open, file);
    if (!name)
        return qs(name.error().message);
    DebrisFind next = *f;
    next.replaces = f->id;
    next.by.clear();
    next.photos.push_back(*name);
    const auto done = m_open.record(next);
    if (!done)
        return qs(done.error().message);
    m_find = m_open.build().finds.back().id;
    refresh();
    return {};
}

void FoundPage::refresh()
{
    const Build &build = m_open.build();
    if (m_where->count() != static_cast<int>(build.engine.stops.size()) + 1) {
        m_where->clear();
        m_where->addItem(tr("elsewhere"), QString());
        for (const Stop &s : build.engine.stops)
            m_where->addItem(qs(s.name), qs(s.id));
        m_where->setCurrentIndex(std::min(1, m_where->count() - 1));
    }
    DebrisFind typed;
    typed.size = chosenWord(m_size);
    typed.colour = chosenWord(m_colour);
    typed.hardness = chosenWord(m_hardness);
    typed.magnetic = chosenWord(m_magnetic);
    const auto guesses = guessDebris(typed);
    m_guess->setText(
        guesses.empty()
            ? tr("Size, colour, hardness and a magnet tell what it may be")
            : tr("Likely %1: %2").arg(qs(guesses.front().kind), qs(guesses.front().reason)));
    setTone(m_guess, Theme::current().muted);
    m_ids.clear();
    std::vector<RowList::Row> rows;
    int at = -1;
    for (const DebrisFind *f : standing(build.finds)) {
        const Stop *stop = build.engine.find(f->stop);
        const auto likely = guessDebris(*f);
        if (f->id == m_find)
            at = static_cast<int>(rows.size());
        rows.push_back({ markOf(*f),
                         { (stop ? qs(stop->name) : qs(f->place)), wordsOf(*f),
                           !f->settled.empty()  ? tr("settled: %1").arg(qs(f->settled))
                               : likely.empty() ? tr("not told yet")
                                                : qs(likely.front().kind) } });
        m_ids.push_back(f->id);
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(at);
    m_way->setFinds(standing(build.finds), at);
    const DebrisFind *f = chosen();
    m_photos->setPhotos(f ? f->photos : std::vector<std::string> {});
    fillSigns();
}

PanelContent FoundPage::panel()
{
    PanelContent out;
    const DebrisFind *f = chosen();
    if (f) {
        const Stop *stop = m_open.build().engine.find(f->stop);
        out.push_back(PanelTitle { stop ? qs(stop->name) : qs(f->place), wordsOf(*f) });
        const auto guesses = guessDebris(*f);
        if (guesses.empty())
            out.push_back(PanelText { tr("What was told of it fits nothing known. Try a magnet, a "
                                         "fingernail, and daylight."),
                                      Tone::Muted });
        QString how = tr("Likely: %1");
        Mark mark = markOf(*f);
        for (const DebrisGuess &g : guesses) {
            out.push_back(PanelVerdict { std::exchange(mark, Mark::NotDone),
                                         std::exchange(how, tr("Or: %1")).arg(qs(g.kind)),
                                         qs(g.reason) });
        }
        if (!f->settled.empty())
            out.push_back(PanelText { tr("Settled: %1").arg(qs(f->settled)), Tone::Good });
        if (!f->place.empty())
            out.push_back(PanelText { qs(f->place), Tone::Muted });
        out.push_back(PanelText { qs(whoText(f->by)) + QStringLiteral(", ")
                                      + qs(dayText(f->at.substr(0, 10))),
                                  Tone::Muted });
        out.push_back(
            PanelButton { QStringLiteral("find.takeBack"), tr("Take it back"),
                          [this, id = f->id] { saidIfRefused(m_open.takeBack("finds", id)); } });
        out.push_back(PanelRule {});
    } else {
        out.push_back(PanelTitle { tr("What was found"), {} });
    }
    out.push_back(PanelText { qs(magnetCaution()), Tone::Muted });
    for (const Finding &finding : m_open.judgement().findings)
        if (finding.id.starts_with("sign@") || finding.id.starts_with("find@"))
            out.push_back(PanelVerdict { finding.mark, qs(finding.text), qs(finding.action) });
    return out;
}

} // namespace mildpath
