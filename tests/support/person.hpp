#pragma once

#include "desk/session/document.hpp"
#include "desk/shell/ledger_model.hpp"
#include "desk/shell/ledger_view.hpp"
#include "desk/shell/main_window.hpp"
#include "desk/toolkit/sentence.hpp"
#include "plan/assess.hpp"
#include "support/patience.hpp"
#include "text/text.hpp"

#include <QtTest>
#include <QtWidgets>

#include <catch2/catch.hpp>

#include <memory>

/// What a person does at the window and sees on it. Things are found by their object names.
namespace poquito::test {

class Person {
  public:
    explicit Person(QSize size = {1280, 800}) : window_(std::make_unique<desk::MainWindow>()) {
        window_->resize(size);
        window_->show();
        QApplication::setActiveWindow(window_.get());
        (void)QTest::qWaitForWindowExposed(window_.get());
        (void)window_->document();  // whatever is left for after the first picture is there
    }
    ~Person() { window_->document().open(desk::genericShoot(), {}); }  // nothing to ask about at the end

    desk::MainWindow& window() { return *window_; }
    desk::Document& document() { return window_->document(); }
    const shoot::Shot& shot() { return *document().shot(); }
    const plan::Report& report() { return *document().report(); }

    template <typename Widget = QWidget>
    Widget* find(const QString& name) {
        auto* found = window_->findChild<Widget*>(name);
        INFO("no " << name.toStdString());
        REQUIRE(found);
        return found;
    }
    bool has(const QString& name) { return window_->findChild<QWidget*>(name) != nullptr; }

    void click(QWidget* widget) {
        REQUIRE(widget->isVisible());
        REQUIRE(widget->isEnabled());
        // Boxes and radio buttons answer where they and their text are, not in the empty rest of the row.
        const bool box = qobject_cast<QCheckBox*>(widget) || qobject_cast<QRadioButton*>(widget);
        QTest::mouseClick(widget, Qt::LeftButton, {}, box ? QPoint(9, widget->height() / 2) : widget->rect().center());
        settle();
    }
    void click(const QString& name) { click(find(name)); }
    void clickRow(QAbstractItemView* view, const QModelIndex& index) {
        REQUIRE(index.isValid());
        view->scrollTo(index);
        settle();
        QTest::mouseClick(view->viewport(), Qt::LeftButton, {}, view->visualRect(index).center());
        settle();
    }
    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = {}) {
        auto* focus = QApplication::focusWidget();
        QTest::keyClick(focus ? focus : window_.get(), key, modifiers);
        settle();
    }
    /// Clicks into a field, replaces its text, and stays in it.
    void type(const QString& name, const QString& text) {
        auto* field = find<QWidget>(name);
        REQUIRE(field->isVisible());
        auto* edit = qobject_cast<QLineEdit*>(field) ? qobject_cast<QLineEdit*>(field) : field->findChild<QLineEdit*>();
        REQUIRE(edit);
        field->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        settle();
    }
    void choose(const QString& name, const QString& text) {
        auto* box = find<QComboBox>(name);
        const int index = box->findText(text);
        REQUIRE(index >= 0);
        box->setFocus();
        // Up and down as a person would; each step is a choice.
        while (box->currentIndex() < index) QTest::keyClick(box, Qt::Key_Down);
        while (box->currentIndex() > index) QTest::keyClick(box, Qt::Key_Up);
        settle();
    }
    QString text(const QString& name) {
        auto* widget = find<QWidget>(name);
        if (auto* label = qobject_cast<QLabel*>(widget)) return label->text();
        if (auto* sentence = qobject_cast<desk::Sentence*>(widget)) return sentence->text();
        if (auto* button = qobject_cast<QAbstractButton*>(widget)) return button->text();
        if (auto* box = qobject_cast<QComboBox*>(widget)) return box->currentText();
        if (auto* spin = qobject_cast<QAbstractSpinBox*>(widget)) return spin->text();
        return qobject_cast<QLineEdit*>(widget)->text();
    }
    desk::LedgerView& margin() { return *find<desk::LedgerView>(QStringLiteral("ledger")); }
    desk::LedgerModel& numbers() { return *margin().ledger(); }
    /// Notes stand at the right, under the headline of their station.
    bool hasNote(const char* code) { return numbers().indexOf(code).isValid(); }
    QString note(const char* code) { return numbers().indexOf(code).data().toString(); }
    QString remedy(const char* code) { return numbers().indexOf(code).data(desk::LedgerModel::remedyRole).toString(); }
    /// Clicks what a note's link says.
    void mend(const char* code) {
        const auto index = numbers().indexOf(code);
        REQUIRE(index.isValid());
        margin().scrollTo(index);
        const QRect link = margin().linkRect(index);
        REQUIRE(link.isValid());
        QTest::mouseClick(margin().viewport(), Qt::LeftButton, {}, link.center());
        settle();
    }
    /// Clicks a line at the right: a headline, a number, "put-right", "usual-here".
    void clickLine(const QModelIndex& index) { clickRow(&margin(), index); }
    void clickLine(const char* key) { clickLine(numbers().show(key)); }
    void goTo(int station) {
        trigger(QStringLiteral("goTo%1").arg(
            QLatin1String(advice::station_name(advice::stations[static_cast<std::size_t>(station - 1)]))));
    }
    void trigger(const QString& action) {
        auto* found = window_->findChild<QAction*>(action);
        REQUIRE(found);
        REQUIRE(found->isEnabled());
        found->trigger();
        settle();
    }
    void selectShot(const QString& name) {
        auto* cards = find<QListView>(QStringLiteral("shotCards"));
        for (int row = 0; row < cards->model()->rowCount(); ++row)
            if (cards->model()->index(row, 0).data().toString() == name)
                return clickRow(cards, cards->model()->index(row, 0));
        FAIL("no shot " << name.toStdString());
    }
    /// The value the ledger shows; empty where it has none.
    QString ledger(const char* key) {
        const auto* figure = numbers().figure(key);
        return figure ? QString::fromStdString(figure->value) : QString();
    }
    void settle() {
        QCoreApplication::processEvents();
        // As a person would look at the notes before clicking on one.
        CHECK(QTest::qWaitFor([this] { return document().isAnswered(); }, patience));
    }

  private:
    std::unique_ptr<desk::MainWindow> window_;
};

/// Answers the next message box, by button, and says what it asked.
inline void answerNext(QMessageBox::StandardButton button, QString* asked = nullptr) {
    QTimer::singleShot(0, qApp, [button, asked] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (!box) return;
        if (asked) *asked = box->text();
        box->button(button)->click();
    });
}

/// Presses a button of the next question by the words on it.
inline void answerNextBy(const QString& words, QString* asked = nullptr) {
    QTimer::singleShot(0, qApp, [words, asked] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        REQUIRE(box);
        if (asked) *asked = box->text();
        for (auto* button : box->buttons())
            if (button->text() == words) return button->click();
        box->reject();
        FAIL("no button " << words.toStdString());
    });
}

}  // namespace poquito::test
