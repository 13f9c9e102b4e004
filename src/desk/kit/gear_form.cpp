#include "desk/kit/gear_form.hpp"

#include "desk/kit/gear_model.hpp"
#include "desk/kit/gear_picture.hpp"
#include "desk/kit/gear_quantity.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/theme.hpp"
#include "shoot/change/calibrate.hpp"
#include "shoot/change/kit_edit.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTableView>
#include <QVBoxLayout>

namespace poquito::desk {
namespace {

QString objectNameOf(const char* key, const char* end) {
    return QStringLiteral("gear-%1%2").arg(QLatin1String(key), QLatin1String(end));
}

/// Something sound to begin with, by the quantity.
gear::Cell freshCell(const gear::FieldSpec& spec) {
    if (spec.type == gear::FieldType::text) return std::string("new");
    switch (spec.measure) {
        case gear::Measure::length:
            return 35.0;
        case gear::Measure::pixels:
            return 1000.0;
        case gear::Measure::f_number:
            return 4.0;
        case gear::Measure::power:
            return 1.0;
        case gear::Measure::shutter:
            return 0.001;
        default:
            return 0.2;
    }
}

/// The next line of a table is mostly like the one before; its first cell tells it apart.
std::vector<gear::Cell> nextRow(const gear::GearTable& table, const gear::Rows& rows) {
    std::vector<gear::Cell> row;
    if (rows.empty()) {
        for (const auto& spec : table.columns) row.push_back(freshCell(spec));
        return row;
    }
    row = rows.back();
    if (auto* number = std::get_if<double>(&row.front())) {
        *number = table.columns.front().measure == gear::Measure::power ? *number / 2 : *number * 1.5;
    } else if (auto* name = std::get_if<std::string>(&row.front())) {
        *name += " 2";
    }
    return row;
}

}  // namespace

GearForm::GearForm(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("gearForm"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
}

void GearForm::show(Document& document, const gear::GearKind& kind, int index) {
    const bool same = document_ == &document && kind_ == &kind && index_ == index;
    if (document_ != &document) {
        disconnect(connection_);
        connection_ = connect(&document, &Document::shootChanged, this, &GearForm::refresh);
    }
    document_ = &document;
    kind_ = &kind;
    index_ = index;
    if (!same) build();
    refresh();
}

void GearForm::build() {
    delete body_;
    bindings_.clear();
    picture_ = nullptr;
    problem_ = nullptr;
    body_ = new QWidget(this);
    layout()->addWidget(body_);
    auto* column = new QVBoxLayout(body_);
    column->setContentsMargins(0, 0, 4, 0);
    column->setSpacing(6);
    if (index_ < 0) {
        auto* nothing =
            new QLabel(tr("Nothing here yet. Take something from the catalogue, or add a piece of your own."), body_);
        nothing->setWordWrap(true);
        nothing->setProperty("quiet", true);
        column->addWidget(nothing);
        column->addStretch();
        return;
    }
    picture_ = new GearPicture(body_);
    column->addWidget(picture_);
    auto* users = new QLabel(body_);
    users->setObjectName(QStringLiteral("gearUsers"));
    users->setProperty("quiet", true);
    users->setFont(textFont(11));
    users->setWordWrap(true);
    column->addWidget(users);
    bindings_.emplace_back([this, users] {
        QStringList names;
        for (const auto& shot :
             shoot::users_of(document_->shoot(), *kind_, kind_->id(document_->kit(), static_cast<std::size_t>(index_))))
            names << toQt(shot);
        users->setVisible(document_->count() > 0);
        users->setText(names.isEmpty() ? tr("No shot uses it.")
                                       : tr("Used by %1.").arg(names.join(QStringLiteral(", "))));
    });
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(4);
    grid->setColumnStretch(1, 1);
    column->addLayout(grid);
    auto* label = new QLabel(tr("Name"), body_);
    label->setProperty("quiet", true);
    name_ = new QLineEdit(body_);
    name_->setObjectName(QStringLiteral("gear-name"));
    name_->setAccessibleName(tr("Name"));
    name_->setToolTip(tr("What you call it; shots that use it go on using it"));
    label->setBuddy(name_);
    grid->addWidget(label, 0, 0);
    grid->addWidget(name_, 0, 1);
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& typed) {
        change(tr("Rename %1").arg(QLatin1String(kind_->one)), QStringLiteral("name"),
               [&](gear::Kit& kit, std::size_t i) { kind_->set_name(kit, i, typed.toStdString()); });
    });
    bindings_.emplace_back([this] {
        const auto name = toQt(kind_->name(document_->kit(), static_cast<std::size_t>(index_)));
        if (name_->text() != name) name_->setText(name);
    });
    for (const auto& field : kind_->fields) addField(field, grid);
    for (const auto& table : kind_->tables) {
        if (std::string_view(table.key) == "calibrations")
            addCalibrations(column);
        else
            addTable(table, column);
    }
    problem_ = new QLabel(body_);
    problem_->setObjectName(QStringLiteral("gearProblem"));
    problem_->setProperty("problem", true);
    problem_->setWordWrap(true);
    problem_->hide();
    column->addWidget(problem_);
    column->addStretch();
}

void GearForm::addField(const gear::GearField& field, QGridLayout* grid) {
    const int row = grid->rowCount();
    const auto get = [this, &field] { return field.get(document_->kit(), static_cast<std::size_t>(index_)); };
    const auto set = [this, &field](const gear::Cell& cell, const QString& key) {
        change(tr("Change %1 of %2").arg(tr(field.label).toLower(), QLatin1String(kind_->one)), key,
               [&](gear::Kit& kit, std::size_t i) { field.set(kit, i, cell); });
    };
    const auto name = [&](QWidget* control) {
        control->setObjectName(objectNameOf(field.key, ""));
        control->setAccessibleName(tr(field.label));
        control->setAccessibleDescription(tr(field.hint));
        control->setToolTip(tr(field.hint));
    };
    if (field.type == gear::FieldType::flag) {
        auto* box = new QCheckBox(tr(field.label), body_);
        name(box);
        grid->addWidget(box, row, 1);
        connect(box, &QCheckBox::clicked, this, [set](bool on) { set(on, {}); });
        bindings_.emplace_back([box, get] { box->setChecked(std::get<bool>(get())); });
        return;
    }
    auto* label = new QLabel(tr(field.label), body_);
    label->setProperty("quiet", true);
    label->setToolTip(tr(field.hint));
    grid->addWidget(label, row, 0);
    if (field.type == gear::FieldType::choice) {
        auto* box = new QComboBox(body_);
        for (const char* choice : field.choices) box->addItem(tr(choice));
        name(box);
        label->setBuddy(box);
        grid->addWidget(box, row, 1);
        connect(box, &QComboBox::activated, this,
                [set, &field](int index) { set(std::string(field.choices[static_cast<std::size_t>(index)]), {}); });
        bindings_.emplace_back([box, get] { box->setCurrentText(tr(std::get<std::string>(get()).c_str())); });
        return;
    }
    auto* number = new QuantityField(quantityOf(field), body_);
    name(number);
    label->setBuddy(number);
    const auto key = [number, &field] {
        return QStringLiteral("%1#%2").arg(QLatin1String(field.key)).arg(number->visit());
    };
    connect(number, &QuantityField::valueEdited, this, [set, key](double value) { set(value, key()); });
    const bool may_be_unknown = field.optional && std::holds_alternative<std::monostate>(field.otherwise);
    if (!may_be_unknown) {
        grid->addWidget(number, row, 1);
        bindings_.emplace_back([number, get] { number->setValue(std::get<double>(get())); });
        return;
    }
    auto* line = new QHBoxLayout;
    auto* known = new QCheckBox(tr("known"), body_);
    known->setObjectName(objectNameOf(field.key, "-known"));
    known->setAccessibleName(tr("%1 is known").arg(tr(field.label)));
    line->addWidget(known);
    line->addWidget(number, 1);
    grid->addLayout(line, row, 1);
    connect(known, &QCheckBox::clicked, this, [set, number](bool on) {
        set(on ? gear::Cell(number->value() > 0 ? number->value() : 1.0) : gear::Cell(), {});
    });
    bindings_.emplace_back([number, known, get] {
        const auto cell = get();
        known->setChecked(std::holds_alternative<double>(cell));
        number->setEnabled(known->isChecked());
        if (known->isChecked()) number->setValue(std::get<double>(cell));
    });
}

void GearForm::addTable(const gear::GearTable& table, QVBoxLayout* column) {
    auto* head = new QHBoxLayout;
    auto* title = new QLabel(tr(table.label), body_);
    title->setFont(textFont(12, QFont::DemiBold));
    title->setToolTip(tr(table.hint));
    head->addWidget(title);
    head->addStretch();
    auto* model = new RowsModel(table, body_);
    auto* view = new QTableView(body_);
    view->setTabKeyNavigation(false);  // Tab goes on; arrows go from cell to cell
    view->setObjectName(objectNameOf(table.key, ""));
    view->setAccessibleName(tr(table.label));
    view->setToolTip(tr(table.hint));
    view->setModel(model);
    view->setShowGrid(false);
    view->verticalHeader()->hide();
    view->verticalHeader()->setDefaultSectionSize(22);
    view->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    view->horizontalHeader()->setHighlightSections(false);
    view->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    view->setEditTriggers(QAbstractItemView::AllEditTriggers);
    const auto edit = [this, &table](const gear::Rows& rows) {
        change(tr("Change %1").arg(tr(table.label).toLower()), {},
               [&](gear::Kit& kit, std::size_t i) { table.set(kit, i, rows); });
    };
    const auto button = [&](const char* end, const QString& label, const QString& accessible, const auto& run) {
        auto* made = new QPushButton(label, body_);
        made->setObjectName(objectNameOf(table.key, end));
        made->setAccessibleName(accessible);
        made->setProperty("link", true);
        connect(made, &QPushButton::clicked, this, run);
        head->addWidget(made);
    };
    button("-add", tr("add a line"), tr("Add a line to %1").arg(tr(table.label)), [model, edit, &table] {
        auto rows = model->rows();
        // One focal length is no zoom.
        const int lines = rows.empty() && std::string_view(table.key) == "zoom" ? 2 : 1;
        for (int i = 0; i < lines; ++i) rows.push_back(nextRow(table, rows));
        edit(rows);
    });
    button("-remove", tr("remove it"), tr("Remove the line of %1").arg(tr(table.label)), [model, view, edit, &table] {
        auto rows = model->rows();
        const int row = view->currentIndex().isValid() ? view->currentIndex().row() : static_cast<int>(rows.size()) - 1;
        if (row < 0) return;
        rows.erase(rows.begin() + row);
        if (std::string_view(table.key) == "zoom" && rows.size() == 1) rows.clear();  // one focal length is no zoom
        edit(rows);
    });
    column->addLayout(head);
    column->addWidget(view);
    connect(model, &RowsModel::rowsEdited, this, edit);
    connect(model, &RowsModel::cellRefused, this, [this](const QString& why) {
        problem_->setText(why);
        problem_->show();
    });
    bindings_.emplace_back([this, model, view, &table] {
        model->show(table.get(document_->kit(), static_cast<std::size_t>(index_)));
        view->setVisible(model->rowCount() > 0);
        view->setFixedHeight(view->horizontalHeader()->height() + 22 * std::min(6, model->rowCount()) + 4);
    });
}

/// What was measured, each with a way back.
void GearForm::addCalibrations(QVBoxLayout* column) {
    auto* box = new QWidget(body_);
    auto* lines = new QVBoxLayout(box);
    lines->setContentsMargins(0, 0, 0, 0);
    lines->setSpacing(2);
    column->addWidget(box);
    bindings_.emplace_back([this, box, lines] {
        while (auto* item = lines->takeAt(0)) {
            delete item->widget();
            delete item;
        }
        const auto& lens = document_->kit().lenses[static_cast<std::size_t>(index_)];
        box->setVisible(!lens.calibrations.empty());
        for (std::size_t i = 0; i < lens.calibrations.size(); ++i) {
            auto* line = new QWidget(box);
            auto* row = new QHBoxLayout(line);
            row->setContentsMargins(0, 0, 0, 0);
            auto* words =
                new QLabel(tr("Measured. %1").arg(toQt(shoot::calibration_text(lens, lens.calibrations[i]))), line);
            words->setWordWrap(true);
            row->addWidget(words, 1);
            auto* back = new QPushButton(tr("take back"), line);
            back->setObjectName(QStringLiteral("takeBack-%1").arg(i));
            back->setAccessibleName(tr("Take the measurement back"));
            back->setProperty("link", true);
            // Queued: the button goes with the refresh that its own click causes.
            connect(
                back, &QPushButton::clicked, this,
                [this, i] {
                    change(tr("Take a measurement back"), {},
                           [&](gear::Kit& kit, std::size_t at) { shoot::forget_calibration(kit.lenses[at], i); });
                },
                Qt::QueuedConnection);
            row->addWidget(back);
            lines->addWidget(line);
        }
    });
}

void GearForm::change(const QString& label, const QString& mergeKey,
                      const std::function<void(gear::Kit&, std::size_t)>& act) {
    const auto index = static_cast<std::size_t>(index_);
    gear::Kit changed = document_->kit();
    act(changed, index);
    const auto problem = kind_->check(changed, index);
    problem_->setVisible(problem.has_value());
    if (problem) {
        const auto line = problem->row ? tr(", line %1").arg(*problem->row + 1) : QString();
        problem_->setText(tr("Not taken. %1%2: %3.").arg(toQt(problem->key), line, toQt(problem->text)));
        return;
    }
    const QString key =
        mergeKey.isEmpty()
            ? QString()
            : QStringLiteral("%1/%2/%3").arg(QLatin1String(kind_->list), toQt(kind_->id(changed, index)), mergeKey);
    std::vector<std::string> fitted;
    document_->edit({label, key}, [&](shoot::Shoot& shoot) {
        act(shoot.kit, index);
        fitted = shoot::fit_shots_to_kit(shoot);
    });
    if (fitted.empty()) return;
    QStringList names;
    for (const auto& name : fitted) names << toQt(name);
    Q_EMIT shotsFitted(names);
}

void GearForm::refresh() {
    if (!document_ || !kind_ || index_ < 0) return;
    if (static_cast<std::size_t>(index_) >= kind_->count(document_->kit())) return;  // it went; the room shows another
    for (const auto& binding : bindings_) binding();
    picture_->show(pieceOf(document_->kit(), kind_->list, static_cast<std::size_t>(index_)));
}

}  // namespace poquito::desk

#include "desk/kit/moc_gear_form.moc"
