// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"
#include "entry/quantityfield.h"
#include "testing.h"

#include <QLocale>
#include <QSignalSpy>

using namespace mildpath;

namespace tst_quantityfield {

class TestQuantityField : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void init();
    void cleanup() { delete m_field; }
    void typedText_isStored_data();
    void typedText_isStored();
    void refusedText_keepsTheOldValue_data();
    void refusedText_keepsTheOldValue();
    void arrows_nudge();
    void escape_bringsTheOldValueBack();
    void backspaceInEmptyField_goesBack();
    void untouchedField_storesNothing();
    void comma_isTheUsersDecimalOrRefused();
    void typing_showsWhatIsUnderstood();

private:
    QuantityField *m_field = nullptr;
};

void TestQuantityField::init()
{
    m_field = new QuantityField(Dimension::Length, "µm");
    m_field->setLocale(QLocale::c());
    m_field->setCheck([](double si) { return checkReadingValue(*findFamily("main"), si * 1e6); });
    m_field->setValue(50e-6);
    m_field->show();
    m_field->activateWindow();
    QVERIFY(QTest::qWaitForWindowActive(m_field));
    m_field->setFocus();
}

void TestQuantityField::typedText_isStored_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<double>("um");
    QTest::newRow("thou") << QStringLiteral("2.3 thou") << 58.42;
    QTest::newRow("millimetres") << QStringLiteral("0.058 mm") << 58.0;
    QTest::newRow("bare") << QStringLiteral("58") << 58.0;
}

void TestQuantityField::typedText_isStored()
{
    QFETCH(QString, text);
    QFETCH(double, um);
    QSignalSpy entered(m_field, &QuantityField::entered);
    m_field->selectAll();
    QTest::keyClicks(m_field, text);
    QTest::keyClick(m_field, Qt::Key_Return);
    QCOMPARE(entered.size(), 1);
    verifyClose(entered[0][0].toDouble() * 1e6, um, 1e-9);
    verifyClose(*m_field->value() * 1e6, um, 1e-9);
}

void TestQuantityField::refusedText_keepsTheOldValue_data()
{
    QTest::addColumn<QString>("text");
    for (const char *text : { "abc", "-5", "9 mm", "12 psi", "0" })
        QTest::newRow(text) << QString::fromLatin1(text);
}

void TestQuantityField::refusedText_keepsTheOldValue()
{
    QFETCH(QString, text);
    QSignalSpy entered(m_field, &QuantityField::entered), refused(m_field, &QuantityField::refused);
    m_field->selectAll();
    QTest::keyClicks(m_field, text);
    QTest::keyClick(m_field, Qt::Key_Return);
    QCOMPARE(entered.size(), 0);
    QCOMPARE(refused.size(), 1);
    QVERIFY(!refused[0][0].toString().isEmpty());
    QCOMPARE(m_field->text(), text); // left to be mended
    verifyClose(*m_field->value(), 50e-6, 1e-12);
    m_field->clearFocus();
    QCOMPARE(m_field->text(), QStringLiteral("50.0"));
}

void TestQuantityField::arrows_nudge()
{
    QTest::keyClick(m_field, Qt::Key_Up);
    QTest::keyClick(m_field, Qt::Key_Up);
    QTest::keyClick(m_field, Qt::Key_Down);
    QTest::keyClick(m_field, Qt::Key_Return);
    verifyClose(*m_field->value() * 1e6, 50.5, 1e-9);
}

void TestQuantityField::escape_bringsTheOldValueBack()
{
    QTest::keyClicks(m_field, QStringLiteral("77"));
    QTest::keyClick(m_field, Qt::Key_Escape);
    QCOMPARE(m_field->text(), QStringLiteral("50.0"));
}

void TestQuantityField::backspaceInEmptyField_goesBack()
{
    QSignalSpy back(m_field, &QuantityField::goBack);
    m_field->selectAll();
    QTest::keyClick(m_field, Qt::Key_Backspace); // empties it
    QCOMPARE(back.size(), 0);
    QTest::keyClick(m_field, Qt::Key_Backspace);
    QCOMPARE(back.size(), 1);
}

void TestQuantityField::untouchedField_storesNothing()
{
    QSignalSpy entered(m_field, &QuantityField::entered), moved(m_field, &QuantityField::moveOn);
    QTest::keyClick(m_field, Qt::Key_Return);
    QCOMPARE(entered.size(), 0);
    QCOMPARE(moved.size(), 1);
}

void TestQuantityField::comma_isTheUsersDecimalOrRefused()
{
    QCOMPARE(withoutComma(QStringLiteral("2,3 thou"), QLocale(QLocale::German)).value(),
             QStringLiteral("2.3 thou"));
    QCOMPARE(withoutComma(QStringLiteral("2,35"), QLocale(QLocale::English)).value(),
             QStringLiteral("2.35"));
    const auto either = withoutComma(QStringLiteral("1,800"), QLocale(QLocale::English));
    QVERIFY(!either);
    QVERIFY(said(either.error().message).find("1.800") != std::string::npos
            && said(either.error().message).find("1800") != std::string::npos);
}

void TestQuantityField::typing_showsWhatIsUnderstood()
{
    QSignalSpy understood(m_field, &QuantityField::understood);
    m_field->selectAll();
    QTest::keyClicks(m_field, QStringLiteral("2.3 thou"));
    QCOMPARE(understood.last()[0].toString(), QStringLiteral("58.4 µm"));
}

} // namespace tst_quantityfield

MILDPATH_TEST(tst_quantityfield, TestQuantityField)
#include "tst_quantityfield.moc"
