#include "desk/proof/proof_page.hpp"

#include "advice/look_over.hpp"
#include "desk/proof/look_over_list.hpp"
#include "desk/proof/proof_model.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/still_list.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/two_line_delegate.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QStringList>

#include <algorithm>
#include <utility>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

namespace {

/// What the correction means in settings, by the lever that moves all light.
QString correction_sentence(const Shot& shot, double correction) {
    if (std::abs(correction) < 0.05) return QObject::tr("The exposure was right.");
    const int thirds = static_cast<int>(std::lround(correction * 3));
    const double iso = step_iso(shot.exposure.iso, thirds);
    if (shot.lights.empty())
        return QObject::tr("Next: %1, or ISO %2.")
            .arg(toQt(shutter_text(step_shutter(shot.exposure.shutter, thirds))), toQt(number_text(iso, 6)));
    return QObject::tr("Next: flash power %1 stops, or ISO %2.").arg(stopsText(correction), toQt(number_text(iso, 6)));
}

}  // namespace

QWidget* ProofPage::buildByEye() {
    auto* tab = new QWidget(this);
    auto* column = new QVBoxLayout(tab);
    column->setContentsMargins(0, 2, 0, 0);
    column->setSpacing(6);
    auto* head = addHeading(column, tr("Look for, at full size"));
    looked_ = new QLabel(this);
    looked_->setObjectName(QStringLiteral("lookedOver"));
    looked_->setProperty("quiet", true);
    head->addWidget(looked_);
    lookOver_ = new LookOverList(this);
    auto* scroll = new QScrollArea(this);
    scroll->setObjectName(QStringLiteral("lookOverView"));
    scroll->setAccessibleName(tr("What to look at in the frames"));
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(lookOver_);
    scroll->viewport()->setAutoFillBackground(false);
    lookOver_->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    connect(lookOver_, &LookOverList::answered, this, &ProofPage::takeAnswers);
    addForm(column);
    return tab;
}

/// What is not so makes the verdict, the correction where it can be told, and what is done about it.
void ProofPage::takeAnswers() {
    const auto wrong = lookOver_->notSo();
    looked_->setText(lookOver_->looked() == 0 ? QString()
                                              : tr("%1 of %2").arg(lookOver_->looked()).arg(lookOver_->count()));
    // A verdict of the person's own stays: only what an answer made goes when the answer does.
    if (const bool had = std::exchange(anyWrong_, !wrong.empty()); had != anyWrong_)
        (anyWrong_ ? redo_ : keep_)->setChecked(true);
    const auto told = std::ranges::find_if(wrong, [](const auto& point) { return point.correction != 0; });
    const double before = std::exchange(told_, told == wrong.end() ? 0 : told->correction);
    if (told_ == before || correction_->value() != before) return;
    correction_->setValue(told_);
    if (const auto* shot = document().shot())
        advice_->setText(told_ == 0 ? QString() : correction_sentence(*shot, told_));
}

void ProofPage::forgetAnswers() {
    told_ = 0;
    anyWrong_ = false;
    lookOver_->forgetAnswers();
    looked_->clear();
}

void ProofPage::addForm(QVBoxLayout* left) {
    auto* group = addGroup(left, {});
    group->setColumnMinimumWidth(0, 0);
    const int top = group->rowCount();  // below the heading
    const auto caption = [&](const QString& label, int row, int column) {
        auto* made = new QLabel(label, this);
        made->setProperty("quiet", true);
        group->addWidget(made, row, column);
        return made;
    };
    const auto field = [&](const Caption& named, Quantity quantity, int column) {
        auto* made = new QuantityField(std::move(quantity), this);
        nameControl(made, named);
        caption(named.label, top, column)->setBuddy(made);
        group->addWidget(made, top, column + 1);
        return made;
    };
    frameCount_ = field({"proofFramesField", tr("Frames"), tr("How many were taken")}, countQuantity(), 0);
    correction_ = field(
        {"proofCorrectionField", tr("Correction"), tr("What the next exposure should differ; positive is brighter")},
        stopsQuantity(), 2);
    frameCount_->setMinimumWidth(50);
    correction_->setMinimumWidth(66);
    correction_->setValue(0);
    keep_ = new QRadioButton(tr("keep"), this);
    keep_->setObjectName(QStringLiteral("keepChoice"));
    redo_ = new QRadioButton(tr("redo"), this);
    redo_->setObjectName(QStringLiteral("redoChoice"));
    keep_->setChecked(true);
    caption(tr("Verdict"), top + 1, 0);
    auto* verdict = new QHBoxLayout;
    verdict->setSpacing(14);
    verdict->addWidget(keep_);
    verdict->addWidget(redo_);
    verdict->addStretch();
    auto* button = captionedButton({"noteProofButton", tr("Note it down"), tr("Into the log below")}, this);
    group->addLayout(verdict, top + 1, 1, 1, 3);
    remark_ = new QLineEdit(this);
    nameControl(remark_, {"remarkField", tr("Remark"), tr("Enter notes it all down")});
    remark_->setPlaceholderText(tr("a remark: clipped? moved?"));
    group->addWidget(remark_, top + 2, 0, 1, 3);
    group->addWidget(button, top + 2, 3);
    connect(button, &QPushButton::clicked, this, &ProofPage::note);
    connect(remark_, &QLineEdit::returnPressed, this, &ProofPage::note);
    advice_ = new Sentence(2, this);
    advice_->setObjectName(QStringLiteral("proofAdvice"));
    left->addWidget(advice_);
    connect(correction_, &QuantityField::valueEdited, this, [this](double value) {
        if (const auto* shot = this->document().shot()) advice_->setText(correction_sentence(*shot, value));
    });
}

QWidget* ProofPage::buildLog() {
    auto* tab = new QWidget(this);
    auto* right = new QVBoxLayout(tab);
    right->setContentsMargins(0, 2, 0, 0);
    right->setSpacing(6);
    auto* bar = addHeading(right, tr("Log of this shot"));
    auto* review = captionedButton({"reviewButton", tr("Review the day"),
                                    tr("Planned and happened, what it cost and what to do otherwise, on a page of the "
                                       "book")},
                                   this);
    connect(review, &QPushButton::clicked, this, &ProofPage::reviewWanted);
    bar->addWidget(review);
    remove_ = new QPushButton(tr("Remove entry"), this);
    remove_->setObjectName(QStringLiteral("removeProofButton"));
    remove_->setAccessibleName(tr("Remove the chosen entry of the log"));
    connect(remove_, &QPushButton::clicked, this, &ProofPage::removeChosen);
    bar->addWidget(remove_);
    model_ = new ProofModel(document(), this);
    log_ = new StillList(this);
    log_->setObjectName(QStringLiteral("proofLog"));
    log_->setAccessibleName(tr("Log of this shot"));
    log_->setModel(model_);
    log_->setItemDelegate(new TwoLineDelegate(4, log_));
    log_->setUniformItemSizes(false);
    log_->setResizeMode(QListView::Adjust);
    log_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    right->addWidget(log_, 1);
    const auto enableRemove = [this] { remove_->setEnabled(log_->selectionModel()->hasSelection()); };
    connect(log_->selectionModel(), &QItemSelectionModel::selectionChanged, this, enableRemove);
    connect(model_, &QAbstractItemModel::modelReset, this, enableRemove);
    enableRemove();
    return tab;
}

void ProofPage::showShot(const Shot& shot, const Report& report) {
    const bool fresh = shot.id != shownShot_;
    if (fresh) {
        // A fresh form for another shot, starting from its plan.
        shownShot_ = shot.id;
        frameCount_->setValue(std::min(report.capture.frames, 1e6));
        correction_->setValue(0);
        remark_->clear();
        keep_->setChecked(true);
        advice_->setText({});
        forgetAnswers();
    }
    lookOver_->setPoints(advice::look_over(document().assessment()->plan, report));
    model_->refresh();
    if (!look() && !runs_.isRunning()) controller_.lookAtRuns(shot.id);
    // Without frames there is one's own eye.
    if (const bool any = look() != nullptr; fresh || any != anyFrames_) {
        anyFrames_ = any;
        tabs_->turnTo(any ? 0 : 1);
    }
    showLook();
}

void ProofPage::note() {
    QStringList remark;
    if (!remark_->text().trimmed().isEmpty()) remark << remark_->text().trimmed();
    QStringList wrong;
    for (const auto& point : lookOver_->notSo()) wrong << toQt(point.name);
    if (!wrong.isEmpty()) remark << tr("not so: %1").arg(wrong.join(QStringLiteral(", ")));
    addEntry(tr("Note what was shot"), {.frames = static_cast<int>(frameCount_->value()),
                                        .correction = correction_->value(),
                                        .verdict = keep_->isChecked() ? Verdict::keep : Verdict::redo,
                                        .remark = remark.join(QStringLiteral("; ")).toStdString()});
    remark_->clear();
    forgetAnswers();
}

void ProofPage::addEntry(const QString& label, shoot::ProofEntry entry) {
    entry.time = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document().editShot({label}, [&](Shot& shot) { shot.proof.push_back(std::move(entry)); });
}

void ProofPage::removeChosen() {
    const auto chosen = log_->selectionModel()->selectedRows();
    if (chosen.isEmpty()) return;
    const auto entry = model_->entryOf(chosen.front().row());
    document().editShot({tr("Remove log entry")},
                        [&](Shot& shot) { shot.proof.erase(shot.proof.begin() + static_cast<std::ptrdiff_t>(entry)); });
}

}  // namespace poquito::desk
