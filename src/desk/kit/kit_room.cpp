#include "desk/kit/kit_room.hpp"

#include "desk/kit/gear_form.hpp"
#include "desk/kit/gear_model.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "desk/toolkit/theme.hpp"
#include "shoot/change/kit_edit.hpp"
#include "storage/kit_file.hpp"

#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QListView>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QStringListModel>
#include <QTableView>
#include <QVBoxLayout>

namespace poquito::desk {
KitRoom::KitRoom(Document& shoot, Bag& bag, QWidget* parent)
    : QWidget(parent), shoot_(shoot), bag_(bag), catalogue_(catalogue()) {
    setObjectName(QStringLiteral("kitRoom"));
    auto* page = new QVBoxLayout(this);
    page->setContentsMargins(16, 12, 16, 12);
    page->setSpacing(8);
    auto* row = new QHBoxLayout;
    row->setSpacing(16);
    row->addWidget(buildKinds());
    row->addWidget(buildPieces(), 5);
    row->addWidget(buildForm(), 4);
    page->addLayout(row, 1);
    message_ = new QLabel(this);
    message_->setObjectName(QStringLiteral("kitMessage"));
    message_->setWordWrap(true);
    page->addWidget(message_);

    for (auto* followed : {&shoot_, &bag_.document()})
        connect(followed, &Document::shootChanged, this, [this, followed] {
            if (followed != &document()) return;
            showKinds();
            showPiece();
        });
    connect(&bag_, &Bag::problemChanged, this, [this] {
        if (!bag_.problem().isEmpty()) say(bag_.problem(), true);
    });
    look(Side::bag, "lenses");
    say(bag_.problem(), true);
}

QWidget* KitRoom::buildKinds() {
    auto* side = new QWidget(this);
    side->setFixedWidth(186);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    auto* sides = new QHBoxLayout;
    sides->setSpacing(4);
    const auto button = [&](const char* name, const QString& label, const QString& tip, Side which) {
        auto* made = captionedButton({name, label, tip}, side);
        made->setCheckable(true);
        connect(made, &QPushButton::clicked, this, [this, which] { look(which, kind().list); });
        sides->addWidget(made, 1);
        return made;
    };
    bagButton_ =
        button("bagSideButton", tr("My bag"), tr("What you own; every new shoot begins with a copy of it"), Side::bag);
    shootButton_ =
        button("shootSideButton", tr("This shoot"), tr("The copy that stands in the shoot's file"), Side::shoot);
    column->addLayout(sides);
    kindNames_ = new QStringListModel(this);
    kinds_ = new QListView(side);
    kinds_->setObjectName(QStringLiteral("gearKinds"));
    kinds_->setAccessibleName(tr("Kinds of gear"));
    kinds_->setModel(kindNames_);
    kinds_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    kinds_->setSpacing(3);
    column->addWidget(kinds_, 1);
    auto* files = new QHBoxLayout;
    files->setSpacing(4);
    addButton(files, "importKitButton", tr("Import\u2026"), tr("A bag as JSON or CSV; nothing that is here is changed"),
              &KitRoom::askImport);
    addButton(files, "exportKitButton", tr("Export\u2026"), tr("All of it, as JSON or CSV"), &KitRoom::askExport);
    column->addLayout(files);
    showKinds();
    connect(kinds_->selectionModel(), &QItemSelectionModel::currentChanged, this, &KitRoom::showKind);
    return side;
}

QPushButton* KitRoom::addButton(QBoxLayout* row, const char* name, const QString& label, const QString& tip,
                                void (KitRoom::*run)()) {
    auto* made = captionedButton({name, label, tip}, this);
    connect(made, &QPushButton::clicked, this, run);
    row->addWidget(made);
    return made;
}

QWidget* KitRoom::buildPieces() {
    auto* side = new QWidget(this);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    model_ = new GearModel(this);
    pieces_ = new QTableView(side);
    pieces_->setTabKeyNavigation(false);  // Tab goes on; arrows go from cell to cell
    pieces_->setObjectName(QStringLiteral("gearTable"));
    pieces_->setAccessibleName(tr("Pieces of this kind"));
    pieces_->setModel(model_);
    pieces_->setSelectionBehavior(QAbstractItemView::SelectRows);
    pieces_->setSelectionMode(QAbstractItemView::SingleSelection);
    pieces_->setShowGrid(false);
    pieces_->setWordWrap(false);
    pieces_->verticalHeader()->hide();
    pieces_->verticalHeader()->setDefaultSectionSize(24);
    pieces_->horizontalHeader()->setHighlightSections(false);
    column->addWidget(pieces_, 1);
    auto* row = new QHBoxLayout;
    row->setSpacing(4);
    addButton(row, "addGearButton", tr("New"), tr("A plain piece to fill in"), &KitRoom::addNew);
    catalogueButton_ = addButton(row, "catalogueButton", tr("Catalogue\u2026"), tr("Generic gear to start from"),
                                 &KitRoom::showCatalogue);
    duplicate_ = addButton(row, "duplicateGearButton", tr("Duplicate"), {}, &KitRoom::duplicate);
    remove_ = addButton(row, "removeGearButton", tr("Remove"), tr("Ctrl+Z brings it back"), &KitRoom::removePiece);
    row->addStretch();
    across_ = addButton(row, "acrossButton", tr("Put into the shoot"), {}, &KitRoom::copyAcross);
    column->addLayout(row);
    connect(pieces_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, &KitRoom::showPiece);
    return side;
}

QWidget* KitRoom::buildForm() {
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setMinimumWidth(340);
    form_ = new GearForm(scroll);
    scroll->setWidget(form_);
    scroll->viewport()->setAutoFillBackground(false);
    form_->setAutoFillBackground(false);
    connect(form_, &GearForm::shotsFitted, this, [this](const QStringList& names) {
        say(tr("Shots that had to follow: %1.").arg(names.join(QStringLiteral(", "))));
    });
    return scroll;
}

// ---- what is shown -----------------------------------------------------------------------------------------------

Document& KitRoom::document() { return side_ == Side::bag ? bag_.document() : shoot_; }

const gear::GearKind& KitRoom::kind() const {
    const int row = kinds_->currentIndex().isValid() ? kinds_->currentIndex().row() : 0;
    return gear::gear_kinds()[static_cast<std::size_t>(row)];
}

std::optional<std::size_t> KitRoom::current() const {
    const auto index = pieces_->currentIndex();
    return index.isValid() ? std::optional(static_cast<std::size_t>(index.row())) : std::nullopt;
}

void KitRoom::look(Side side, std::string_view list) {
    side_ = side;
    bagButton_->setChecked(side == Side::bag);
    shootButton_->setChecked(side == Side::shoot);
    across_->setText(side == Side::bag ? tr("Put into the shoot") : tr("Take into the bag"));
    across_->setAccessibleName(across_->text());
    showKinds();
    const auto kinds = gear::gear_kinds();
    for (std::size_t i = 0; i < kinds.size(); ++i)
        if (kinds[i].list == list) kinds_->setCurrentIndex(kindNames_->index(static_cast<int>(i)));
    showKind();
    Q_EMIT sideShown();
}

void KitRoom::showKinds() {
    QStringList names;
    for (const auto& kind : gear::gear_kinds())
        names << tr("%1  %2").arg(tr(kind.many)).arg(kind.count(document().kit()));
    if (names.size() != kindNames_->rowCount()) return kindNames_->setStringList(names);
    for (int i = 0; i < names.size(); ++i) kindNames_->setData(kindNames_->index(i), names[i]);
}

void KitRoom::showKind() {
    model_->show(document(), kind());
    auto* header = pieces_->horizontalHeader();
    header->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < model_->columnCount(); ++i) header->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    if (model_->rowCount() > 0) pieces_->selectRow(0);
    catalogueButton_->setEnabled(kind().count(catalogue_) > 0);
    showPiece();
}

void KitRoom::showPiece() {
    if (!current() && model_->rowCount() > 0) return pieces_->selectRow(0);
    const auto index = current();
    duplicate_->setEnabled(index.has_value());
    remove_->setEnabled(index.has_value());
    across_->setEnabled(index.has_value());
    form_->show(document(), kind(), index ? static_cast<int>(*index) : -1);
}

void KitRoom::select(std::size_t index) {
    pieces_->selectRow(static_cast<int>(index));
    pieces_->scrollTo(model_->index(static_cast<int>(index), 0));
}

void KitRoom::say(const QString& words, bool problem) {
    message_->setText(words);
    message_->setProperty("problem", problem);
    message_->setVisible(!words.isEmpty());
}

// ---- what is done ------------------------------------------------------------------------------------------------

void KitRoom::addNew() {
    std::size_t added = 0;
    document().edit({tr("Add a %1").arg(QLatin1String(kind().one))},
                    [&](shoot::Shoot& shoot) { added = shoot::add_gear(kind(), shoot.kit); });
    select(added);
    say({});
    if (auto* name = form_->findChild<QWidget*>(QStringLiteral("gear-name"))) name->setFocus();
}

void KitRoom::duplicate() {
    const auto index = current();
    if (!index) return;
    std::size_t added = 0;
    document().edit({tr("Duplicate %1").arg(QLatin1String(kind().one))},
                    [&](shoot::Shoot& shoot) { added = shoot::duplicate_gear(kind(), shoot.kit, *index); });
    select(added);
}

void KitRoom::removePiece() {
    const auto index = current();
    if (!index) return;
    const std::string id = kind().id(document().kit(), *index);
    const auto name = toQt(kind().name(document().kit(), *index));
    QStringList users;
    for (const auto& shot : shoot::users_of(document().shoot(), kind(), id)) users << toQt(shot);
    std::string replacement;
    if (!users.isEmpty()) {
        const auto chosen = askReplacement(*index, users);
        if (!chosen) return;
        replacement = *chosen;
    }
    document().edit({tr("Remove %1").arg(name)},
                    [&](shoot::Shoot& shoot) { shoot::remove_gear(shoot, kind(), *index, replacement); });
    say(tr("Removed \u201c%1\u201d; Ctrl+Z brings it back.").arg(name));
}

/// What the shots that use it take instead; an empty id: nothing. Empty: cancelled.
std::optional<std::string> KitRoom::askReplacement(std::size_t index, const QStringList& users) {
    const bool needed = shoot::needs_replacement(kind());
    QDialog box(this);
    box.setObjectName(QStringLiteral("removeQuestion"));
    box.setWindowTitle(tr("Still in use"));
    auto* column = new QVBoxLayout(&box);
    auto* words = new QLabel(tr("\u201c%1\u201d is used by: %2.")
                                 .arg(toQt(kind().name(document().kit(), index)), users.join(QStringLiteral(", "))),
                             &box);
    words->setWordWrap(true);
    words->setMinimumWidth(360);
    column->addWidget(words);
    auto* choice = new QComboBox(&box);
    choice->setObjectName(QStringLiteral("replacementChoice"));
    choice->setAccessibleName(tr("What these shots take instead"));
    if (!needed) choice->addItem(tr("they do without"), QString());
    for (std::size_t i = 0; i < kind().count(document().kit()); ++i)
        if (i != index)
            choice->addItem(tr("they take %1").arg(toQt(kind().name(document().kit(), i))),
                            toQt(kind().id(document().kit(), i)));
    column->addWidget(choice);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel, &box);
    buttons->button(QDialogButtonBox::Ok)->setText(tr("Remove"));
    buttons->button(QDialogButtonBox::Ok)->setObjectName(QStringLiteral("confirmRemoveButton"));
    buttons->button(QDialogButtonBox::Ok)->setEnabled(choice->count() > 0);
    if (choice->count() == 0) words->setText(words->text() + tr(" It is the only one, and a shot cannot do without."));
    connect(buttons, &QDialogButtonBox::accepted, &box, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, &box, &QDialog::reject);
    column->addWidget(buttons);
    if (box.exec() != QDialog::Accepted) return std::nullopt;
    return choice->currentData().toString().toStdString();
}

void KitRoom::copyAcross() {
    const auto index = current();
    if (!index) return;
    Document& other = side_ == Side::bag ? shoot_ : bag_.document();
    const gear::Kit from = document().kit();
    const auto name = toQt(kind().name(from, *index));
    const bool there = gear::find_index(kind(), other.kit(), kind().id(from, *index)).has_value();
    std::vector<std::string> fitted;
    other.edit({side_ == Side::bag ? tr("Put %1 into the shoot").arg(name) : tr("Take %1 into the bag").arg(name)},
               [&](shoot::Shoot& shoot) {
                   shoot::put_gear(kind(), shoot.kit, from, *index);
                   fitted = shoot::fit_shots_to_kit(shoot);
               });
    QString said = there ? tr("\u201c%1\u201d there is now as it is here.").arg(name)
                         : tr("\u201c%1\u201d is there too now.").arg(name);
    for (const auto& shot : fitted) said += tr(" %1 had to follow.").arg(toQt(shot));
    say(said);
}

void KitRoom::showCatalogue() {
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("catalogueMenu"));
    for (std::size_t i = 0; i < kind().count(catalogue_); ++i)
        connect(menu.addAction(toQt(kind().name(catalogue_, i))), &QAction::triggered, this,
                [this, i] { takeFromCatalogue(i); });
    menu.exec(catalogueButton_->mapToGlobal(QPoint(0, catalogueButton_->height())));
}

void KitRoom::takeFromCatalogue(std::size_t index) {
    std::size_t added = 0;
    document().edit({tr("Take %1 from the catalogue").arg(toQt(kind().name(catalogue_, index)))},
                    [&](shoot::Shoot& shoot) {
                        added = kind().count(shoot.kit);
                        const auto id = shoot::unique_gear_id(kind(), shoot.kit, kind().id(catalogue_, index));
                        kind().insert_copy(shoot.kit, added, catalogue_, index);
                        kind().set_id(shoot.kit, added, id);
                    });
    select(added);
    say({});
}

void KitRoom::askImport() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Import gear"), inDocuments({}),
                                                      tr("Bags (*.json *.csv);;All files (*)"));
    if (!path.isEmpty()) importFrom(path);
}

bool KitRoom::importFrom(const QString& path) {
    auto loaded = storage::load_kit(path.toStdString());
    if (!loaded) {
        say(tr("%1 was not imported. %2").arg(QFileInfo(path).fileName(), toQt(text::message(loaded.error()))), true);
        return false;
    }
    shoot::Merged merged;
    document().edit({tr("Import gear")}, [&](shoot::Shoot& shoot) { merged = shoot::merge_kit(shoot.kit, *loaded); });
    say(tr("Imported from %1: %2 added%3, %4 there already.")
            .arg(QFileInfo(path).fileName())
            .arg(merged.added)
            .arg(merged.renamed > 0 ? tr(" (%1 beside others of the same id)").arg(merged.renamed) : QString())
            .arg(merged.same));
    return true;
}

void KitRoom::askExport() {
    QFileDialog dialog(this, tr("Export gear"), inDocuments({}));
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    const QStringList kinds = {tr("JSON (*.json)"), tr("CSV for spreadsheets (*.csv)")};
    dialog.setNameFilters(kinds);
    dialog.setDefaultSuffix(QStringLiteral("json"));
    dialog.selectFile(QStringLiteral("bag"));
    connect(&dialog, &QFileDialog::filterSelected, &dialog, [&](const QString& kind) {
        dialog.setDefaultSuffix(kind == kinds.back() ? QStringLiteral("csv") : QStringLiteral("json"));
    });
    if (dialog.exec() == QDialog::Accepted && !dialog.selectedFiles().isEmpty())
        exportTo(dialog.selectedFiles().front());
}

bool KitRoom::exportTo(const QString& path) {
    if (const auto saved = storage::save_kit(document().kit(), path.toStdString()); !saved) {
        say(tr("Nothing was exported. %1").arg(toQt(text::message(saved.error()))), true);
        return false;
    }
    say(tr("Exported to %1.").arg(QFileInfo(path).fileName()));
    return true;
}

}  // namespace poquito::desk

#include "desk/kit/moc_kit_room.moc"
