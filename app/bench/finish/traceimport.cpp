// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/traceimport.h"

#include "entry/entryform.h"
#include "quantity/rounding.h"
#include "storage/files.h"

#include <QComboBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mildpath {

TraceImportCard::TraceImportCard(OpenBuild &open, QWidget *parent)
    : CardWidget(parent)
    , m_open(open)
    , m_form(new EntryForm(QStringLiteral("trace"), 4, this))
    , m_title(new QLabel(this))
    , m_said(new QLabel(this))
    , m_take(new QPushButton(tr("Take the trace"), this))
{
    setObjectName(QStringLiteral("traceImport"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(14, 10, 14, 12);
    m_title->setFont(textFont(TextSize::Body, true));
    column->addWidget(m_title);
    const auto same
        = [](const char *w) { return std::pair(QString::fromUtf8(w), QString::fromUtf8(w)); };
    m_form->addChoice("columns", tr("A line holds"),
                      { { QStringLiteral("2"), tr("place and height") },
                        { QStringLiteral("1"), tr("height alone") } });
    m_form->addChoice("x", tr("Place is in"), { same("mm"), same("µm") });
    m_form->addChoice("z", tr("Height is in"), { same("µm"), same("nm"), same("mm") });
    m_form->addNumber("spacing", tr("Step"), Dimension::Length, "µm", 3);
    m_form->newRow();
    m_form->addChoice("bore", tr("Bore"), {});
    m_form->addChoice("phase", tr("It was taken"),
                      { { QStringLiteral("before"), tr("before finishing strokes") },
                        { QStringLiteral("after"), tr("after finishing strokes") } });
    m_form->addWord("place", tr("Where in the bore"), tr("mid stroke, thrust side"));
    column->addWidget(m_form);
    m_said->setObjectName(QStringLiteral("trace.said"));
    m_said->setWordWrap(true);
    column->addWidget(m_said);
    auto *row = new QHBoxLayout;
    m_take->setObjectName(QStringLiteral("trace.take"));
    m_take->setProperty("main", true);
    row->addWidget(m_take);
    auto *cancel = new QPushButton(tr("Leave it"), this);
    cancel->setObjectName(QStringLiteral("trace.leave"));
    row->addWidget(cancel);
    row->addStretch();
    column->addLayout(row);
    column->addStretch();
    connect(m_form, &EntryForm::changed, this, &TraceImportCard::check);
    connect(m_take, &QPushButton::clicked, this, &TraceImportCard::take);
    connect(cancel, &QPushButton::clicked, this, &TraceImportCard::cancelled);
}

QString TraceImportCard::load(const QString &path)
{
    auto text = readTextFile(path.toStdString());
    if (!text)
        return qs(text.error().message);
    m_text = std::move(*text);
    m_name = QFileInfo(path).fileName();
    m_title->setText(tr("%1: how is it to be read?").arg(m_name));
    const TraceFormat guess = guessTraceFormat(m_text);
    m_comma = guess.decimalComma;
    const auto set = [&](const char *key, const QString &id) {
        QComboBox *box = m_form->choiceBox(key);
        box->setCurrentIndex(std::max(0, box->findData(id)));
    };
    set("columns", QString::number(guess.columns));
    set("x", qs(guess.xUnit));
    set("z", qs(guess.zUnit));
    QComboBox *bores = m_form->choiceBox("bore");
    bores->clear();
    for (int i = 1; i <= m_open.build().engine.cylinders; ++i)
        bores->addItem(tr("bore %1").arg(i), QString::number(i));
    check();
    return {};
}

TraceFormat TraceImportCard::format() const
{
    TraceFormat out;
    out.columns = m_form->choice("columns") == "1" ? 1 : 2;
    out.xUnit = m_form->choice("x");
    out.zUnit = m_form->choice("z");
    out.spacing_um = m_form->number("spacing");
    out.decimalComma = m_comma;
    return out;
}

void TraceImportCard::check()
{
    const TraceFormat f = format();
    m_form->setShown("x", f.columns == 2);
    m_form->setShown("spacing", f.columns == 1);
    m_trace = traceFromText(m_text, f);
    m_take->setEnabled(m_trace.errors.empty());
    const Theme &t = Theme::current();
    if (!m_trace.errors.empty()) {
        const Error &e = m_trace.errors.front();
        m_said->setText(tr("%1: %2%3")
                            .arg(qs(e.place), qs(e.message),
                                 m_trace.errors.size() > 1
                                     ? tr("; %1 more like it").arg(m_trace.errors.size() - 1)
                                     : QString()));
        setTone(m_said, t.hold);
        return;
    }
    const auto n = m_trace.z_um.size();
    m_said->setText(
        tr("%1 heights, a step of %2, %3 long.%4")
            .arg(qs(formatNumber(static_cast<double>(n), 0)),
                 inWords(Quantity { m_trace.spacing_um * 1e-6, Shows::Roughness, 0, 3 }),
                 inWords(asLength(static_cast<double>(n - 1) * m_trace.spacing_um / 1000, 2)),
                 m_trace.said.empty() ? QString() : tr(" Mind: %1.").arg(qs(m_trace.said))));
    setTone(m_said, m_trace.said.empty() ? t.muted : t.lookAgain);
}

void TraceImportCard::take()
{
    BoreTrace trace;
    trace.bore = std::stoi(m_form->choice("bore"));
    trace.phase = m_form->choice("phase");
    trace.place = m_form->word("place");
    trace.source = m_name.toStdString();
    trace.note = mildpath::render(m_trace.said, fileStyle);
    trace.spacing_um = m_trace.spacing_um;
    trace.z = Heights(m_trace.z_um);
    if (const auto done = m_open.record(std::move(trace)); !done) {
        m_said->setText(qs(done.error().message));
        setTone(m_said, Theme::current().hold);
        return;
    }
    Q_EMIT taken();
}

} // namespace mildpath
