// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/diagnosis.h"
#include "open/answers.h"
#include "shell/page.h"

#include <QWidget>

#include <memory>
#include <optional>

class QLabel;
class QPushButton;
class QTimer;

namespace mildpath {

class RowList;

/// A diagnosis with the build it is of.
using AnsweredDiagnosis = Answered<Result<Diagnosis>>;

/// Each reading on one scale: as read, as the healthy engine would read, as the leader would.
class ReadingScale : public QWidget
{
    Q_OBJECT
public:
    explicit ReadingScale(QWidget *parent = nullptr);
    void setAnswer(std::shared_ptr<const AnsweredDiagnosis> answer, size_t candidate);
    void choose(const std::string &reading);

Q_SIGNALS:
    void picked(const QString &reading);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    std::shared_ptr<const AnsweredDiagnosis> m_answer;
    size_t m_candidate = 0;
    std::string m_chosen;
};

/// Candidates as bars with their share.
class CandidateBars : public QWidget
{
    Q_OBJECT
public:
    explicit CandidateBars(QWidget *parent = nullptr);
    void setAnswer(std::shared_ptr<const AnsweredDiagnosis> answer);
    void choose(size_t candidate);
    size_t rows() const;

Q_SIGNALS:
    void picked(int candidate);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    std::shared_ptr<const AnsweredDiagnosis> m_answer;
    size_t m_chosen = 0;
};

/// Readings and symptoms → what is wrong, and what to read or look at next.
class DiagnosisPage : public Page
{
    Q_OBJECT
public:
    explicit DiagnosisPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "diagnosis", tr("Find the fault") } }; }
    QString title() const override { return tr("What the readings say"); }
    void refresh() override;
    PanelContent panel() override;
    /// What is shown, for tests; null while it is worked out.
    const Diagnosis *shown() const { return m_answer ? &*m_answer->answer : nullptr; }

private:
    void showNext();
    void take(std::shared_ptr<const AnsweredDiagnosis> answer);
    void giveUp();
    void showProgress();
    void candidatePanel(PanelContent &out) const;
    void readingPanel(PanelContent &out);
    void symptomPanel(PanelContent &out) const;
    void recordReading(double pressure_pa);

    QLabel *m_verdict, *m_advice;
    QPushButton *m_cancel;
    ReadingScale *m_scale;
    CandidateBars *m_bars;
    RowList *m_next;
    QTimer *m_progress;
    std::shared_ptr<const AnsweredDiagnosis> m_shown; ///< as it came
    std::shared_ptr<const AnsweredDiagnosis> m_answer; ///< the same where it is a diagnosis
    QString m_noAnswer; ///< why there is none
    size_t m_candidate = 0;
    std::string m_reading; ///< chosen
    /// The next reading to be recorded; stays from one to the next.
    int m_tap = -1;
    double m_rpm = 0, m_oil_c = 0;
    bool m_byDrill = false; ///< then the speed is of the pump's shaft
    double m_u_pa = GaugeReading::usualGaugeU_kpa * 1e3;
};

} // namespace mildpath
