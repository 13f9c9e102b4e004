#include "desk/proof/proof_page.hpp"

#include "desk/base/sentence.hpp"
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/proof/proof_model.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <QDateTime>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QTableView>

#include <cmath>

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

ProofPage::ProofPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* left = addColumn(4);
    auto* group = addGroup(left, tr("What was shot"));
    const auto plainField = [&](const char* name, const QString& label, const QString& tip, Quantity quantity) {
        auto* field = new QuantityField(std::move(quantity), group->parentWidget());
        field->setObjectName(QLatin1String(name));
        field->setAccessibleName(label);
        field->setToolTip(tip);
        auto* caption = new QLabel(label, group->parentWidget());
        caption->setProperty("quiet", true);
        caption->setBuddy(field);
        const int row = group->rowCount();
        group->addWidget(caption, row, 0);
        group->addWidget(field, row, 1);
        return field;
    };
    frames_ = plainField("proofFramesField", tr("Frames"), tr("How many were taken"), countQuantity());
    correction_ = plainField("proofCorrectionField", tr("Correction"),
                             tr("What the next exposure should differ; positive is brighter"), stopsQuantity());
    correction_->setValue(0);
    auto* verdict = new QHBoxLayout;
    keep_ = new QRadioButton(tr("keep"), this);
    keep_->setObjectName(QStringLiteral("keepChoice"));
    redo_ = new QRadioButton(tr("redo"), this);
    redo_->setObjectName(QStringLiteral("redoChoice"));
    keep_->setChecked(true);
    verdict->setSpacing(14);
    verdict->addWidget(keep_);
    verdict->addWidget(redo_);
    verdict->addStretch();
    auto* verdictLabel = new QLabel(tr("Verdict"), this);
    verdictLabel->setProperty("quiet", true);
    int row = group->rowCount();
    group->addWidget(verdictLabel, row, 0);
    group->addLayout(verdict, row, 1);
    remark_ = new QLineEdit(this);
    remark_->setObjectName(QStringLiteral("remarkField"));
    remark_->setAccessibleName(tr("Remark"));
    remark_->setPlaceholderText(tr("sharp at both ends? clipped? moved?"));
    ++row;
    group->addWidget(remark_, row, 0, 1, 2);
    auto* button = new QPushButton(tr("Note it down"), this);
    button->setObjectName(QStringLiteral("noteProofButton"));
    button->setAccessibleName(tr("Note what was shot"));
    group->addWidget(button, row + 1, 0, 1, 2);
    connect(button, &QPushButton::clicked, this, &ProofPage::note);
    connect(remark_, &QLineEdit::returnPressed, this, &ProofPage::note);
    advice_ = new Sentence(2, this);
    advice_->setObjectName(QStringLiteral("proofAdvice"));
    left->addWidget(advice_);
    left->addStretch();
    connect(correction_, &QuantityField::valueEdited, this, [this](double value) {
        if (const auto* shot = this->document().shot()) advice_->setText(correction_sentence(*shot, value));
    });

    auto* right = addColumn(9);
    auto* bar = addHeading(right, tr("Log of this shot"));
    remove_ = new QPushButton(tr("Remove entry"), this);
    remove_->setObjectName(QStringLiteral("removeProofButton"));
    remove_->setAccessibleName(tr("Remove the chosen entry of the log"));
    connect(remove_, &QPushButton::clicked, this, &ProofPage::removeChosen);
    bar->addWidget(remove_);
    model_ = new ProofModel(document, this);
    table_ = new QTableView(this);
    table_->setTabKeyNavigation(false);  // Tab goes on; arrows go from cell to cell
    table_->setObjectName(QStringLiteral("proofTable"));
    table_->setAccessibleName(tr("Log of this shot"));
    table_->setModel(model_);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->setShowGrid(false);
    table_->setWordWrap(true);
    table_->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setTabKeyNavigation(false);
    right->addWidget(table_, 1);
    const auto enableRemove = [this] { remove_->setEnabled(table_->selectionModel()->hasSelection()); };
    connect(table_->selectionModel(), &QItemSelectionModel::selectionChanged, this, enableRemove);
    connect(model_, &QAbstractItemModel::modelReset, this, enableRemove);
    enableRemove();
}

void ProofPage::showShot(const Shot& shot, const Report& report) {
    if (shot.id != shownShot_) {
        // A fresh form for another shot, starting from its plan.
        shownShot_ = shot.id;
        frames_->setValue(std::min(report.capture.frames, 1e6));
        correction_->setValue(0);
        remark_->clear();
        keep_->setChecked(true);
        advice_->setText({});
    }
    model_->refresh();
}

void ProofPage::note() {
    document().editShot({tr("Note what was shot")}, [&](Shot& shot) {
        shot.proof.push_back({.time = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(),
                              .frames = static_cast<int>(frames_->value()),
                              .correction = correction_->value(),
                              .verdict = keep_->isChecked() ? Verdict::keep : Verdict::redo,
                              .remark = remark_->text().toStdString()});
    });
    remark_->clear();
}

void ProofPage::removeChosen() {
    const auto chosen = table_->selectionModel()->selectedRows();
    if (chosen.isEmpty()) return;
    const auto entry = model_->entryOf(chosen.front().row());
    document().editShot({tr("Remove log entry")},
                        [&](Shot& shot) { shot.proof.erase(shot.proof.begin() + static_cast<std::ptrdiff_t>(entry)); });
}

}  // namespace poquito::desk
