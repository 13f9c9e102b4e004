#include "desk/book/log_tab.hpp"

#include "desk/book/log_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/document.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/theme.hpp"
#include "log/keeper.hpp"
#include "shoot/change/edit.hpp"
#include "storage/shoot_file.hpp"
#include "sun/shine.hpp"
#include "sun/zone.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDate>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QMessageBox>
#include <QPainter>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTime>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

namespace poquito::desk {
namespace {

/// Where it stood, by the site of its plan; empty: that is not known, or it was down.
std::string sunThen(const log::Entry& entry) {
    if (entry.plan.empty() || entry.light.find("sky") == std::string::npos) return {};
    const auto read = storage::read_shoot(entry.plan);
    const auto place = read ? sun::place_of(read->site) : std::nullopt;
    const auto time =
        QTime::fromString(toQt(entry.time.substr(std::min<std::size_t>(11, entry.time.size()), 8)), Qt::ISODate);
    if (!place || !time.isValid()) return {};
    const auto moment = sun::moment_of(read->site.zone, entry.time.substr(0, 10), time.msecsSinceStartOfDay() / 1000.0);
    if (!moment) return {};
    const auto position = sun::position_at(*place, *moment);
    if (position.elevation < 0) return QObject::tr("down").toStdString();
    return QObject::tr("%1\u00b0 high, bearing %2\u00b0")
        .arg(std::lround(position.elevation))
        .arg(std::lround(position.bearing))
        .toStdString();
}

}  // namespace

LogTab::LogTab(Document& document, LogWriter& writer, QWidget* parent)
    : QWidget(parent), document_(document), writer_(writer), controller_(writer.book()) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    row->addWidget(buildList(), 1);
    page_ = buildPage();
    page_->hide();
    row->addWidget(page_);
    later_.setSingleShot(true);
    later_.setInterval(120);  // ms after the last key
    connect(&later_, &QTimer::timeout, this, &LogTab::find);
    connect(&controller_, &LogController::changed, this, [this] {
        if (isVisible()) find();
    });
    showEntry();
}

QWidget* LogTab::buildList() {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    addSearch(column, page);
    found_ = new Sentence(2, page);
    found_->setObjectName(QStringLiteral("logFound"));
    column->addWidget(found_);
    board_ = new LogBoard(page);
    column->addWidget(scrollingOn(board_, page), 1);
    connect(board_, &LogBoard::entryChosen, this, &LogTab::look);
    connect(board_, &LogBoard::entryWanted, this, &LogTab::begin);
    connect(board_, &LogBoard::forgetWanted, this, [this] { forget_->click(); });
    addWriting(column, page);
    addExchange(column, page);
    return page;
}

void LogTab::addSearch(QVBoxLayout* column, QWidget* page) {
    auto* bar = new QHBoxLayout;
    bar->setSpacing(6);
    words_ = new LineField(page);
    nameControl(words_, {"logWordsField", tr("Look for"),
                         tr("Words, or how they begin: a species, a place, a lens; a day, month or year as 2026-11-28, "
                            "2026-11, 2026")});
    words_->setPlaceholderText(tr("species, place, shot, lens \u2026"));
    connect(words_, &QLineEdit::textChanged, this, [this] { later_.start(); });
    bar->addWidget(words_, 1);
    const auto choice = [&](const Caption& caption, const QStringList& items) {
        auto* box = new QComboBox(page);
        nameControl(box, caption);
        box->addItems(items);
        connect(box, &QComboBox::currentIndexChanged, this, &LogTab::find);
        bar->addWidget(box);
        return box;
    };
    kind_ = choice({"logKindChoice", tr("What"), tr("What happened")},
                   {tr("all that happened"), tr("runs"), tr("proofs"), tr("counts"), tr("corrections"),
                    tr("measurements"), tr("changes"), tr("notes"), tr("what frames showed")});
    class_ = choice({"logClassChoice", tr("Of"), tr("Class of subject")}, {tr("all classes")});
    verdict_ =
        choice({"logVerdictChoice", tr("Verdict"), tr("What became of it")}, {tr("any"), tr("kept"), tr("redone")});
    season_ = new QCheckBox(tr("due again"), page);
    nameControl(season_,
                {"logSeasonCheck", tr("Due again"),
                 tr("Only what was within a fortnight of today's day in other years: what grows or comes then")});
    connect(season_, &QCheckBox::toggled, this, &LogTab::find);
    bar->addWidget(season_);
    column->addLayout(bar);
}

/// A line of one's own, as of now.
void LogTab::addWriting(QVBoxLayout* column, QWidget* page) {
    auto* own = new QHBoxLayout;
    own->setSpacing(6);
    line_ = new LineField(page);
    nameControl(line_, {"writeDownField", tr("Write down"),
                        tr("A line, as in notes of a day: words of a shot's name, 3/20 for hits of tries, 12 frames, "
                           "keep or redo, combined 40 frames 7 min; what is left over stays as it stands")});
    line_->setPlaceholderText(tr("write down: lichen 3/20 gusty, keep \u2026"));
    own->addWidget(line_, 1);
    auto* write = captionedButton({"writeDownButton", tr("Write down"), tr("Into the log, as of now; Enter")}, page);
    own->addWidget(write);
    const auto enter = [this] {
        if (line_->text().trimmed().isEmpty()) return;
        writer_.writeDown(line_->text());
        line_->clear();
    };
    connect(write, &QPushButton::clicked, this, enter);
    connect(line_, &QLineEdit::returnPressed, this, enter);
    column->addLayout(own);
}

void LogTab::addExchange(QVBoxLayout* column, QWidget* page) {
    auto* foot = new QHBoxLayout;
    const auto link = [&](const Caption& caption, const auto& run) {
        auto* made = captionedButton(caption, page);
        made->setProperty("link", true);
        connect(made, &QPushButton::clicked, this, run);
        foot->addWidget(made);
    };
    link({"exportLogButton", tr("Export\u2026"), tr("All of it, as JSON with plans and pictures, or as a table")},
         [this] {
             const auto path = QFileDialog::getSaveFileName(this, tr("Export the log"), QStringLiteral("log.json"),
                                                            tr("JSON (*.json);;Tables (*.csv)"));
             if (!path.isEmpty()) controller_.exportTo(path);
         });
    link({"importLogButton", tr("Import\u2026"),
          tr("Entries of another computer, what is here already stays once; or notes of a day in the field, a line a "
             "thing")},
         [this] {
             const auto path =
                 QFileDialog::getOpenFileName(this, tr("Import a log"), {}, tr("Logs, notes (*.json *.csv *.txt)"));
             if (path.endsWith(QLatin1String(".txt"), Qt::CaseInsensitive)) return writer_.readNotes(path);
             if (!path.isEmpty()) controller_.importFrom(path);
         });
    foot->addStretch();
    auto* hint = new QLabel(tr("stays on this computer; Delete forgets, a double click begins a shot from it"), page);
    hint->setProperty("quiet", true);
    foot->addWidget(hint);
    column->addLayout(foot);
}

QWidget* LogTab::buildPage() {
    auto* page = paperOn(this);
    page->setFixedWidth(300);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    picture_ = new QLabel(page);
    picture_->setObjectName(QStringLiteral("logPicture"));
    picture_->setAccessibleName(tr("The finder's picture of the plan"));
    picture_->setAlignment(Qt::AlignCenter);
    picture_->setFixedHeight(170);
    column->addWidget(picture_);
    thumbnails_ = new QLabel(page);
    thumbnails_->setObjectName(QStringLiteral("logThumbnails"));
    thumbnails_->setAccessibleName(tr("Its frames, from the first to the last"));
    thumbnails_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    column->addWidget(thumbnails_);
    facts_ = new FactsView("logFacts", tr("What happened"), page);
    facts_->setMinimumHeight(180);
    column->addWidget(facts_, 1);
    differs_ = new Sentence(5, page);
    differs_->setObjectName(QStringLiteral("logDiffers"));
    column->addWidget(differs_);
    begin_ = captionedButton({"beginFromLogButton", tr("Begin a shot from this"),
                              tr("Its whole plan as a new shot of this shoot, on the gear that is here now")},
                             page);
    connect(begin_, &QPushButton::clicked, this, &LogTab::begin);
    column->addWidget(begin_);
    forget_ =
        captionedButton({"forgetLogButton", tr("Forget it"), tr("Out of the log for good, from the file too")}, page);
    connect(forget_, &QPushButton::clicked, this, [this] {
        if (shown_) controller_.forget(shown_->id);
    });
    column->addWidget(forget_);
    return page;
}

void LogTab::refresh() { find(); }

void LogTab::find() {
    later_.stop();
    auto query = log::query_of(words_->text().toStdString());
    if (kind_->currentIndex() > 0) query.kind = static_cast<log::Kind>(kind_->currentIndex() - 1);
    if (class_->currentIndex() > 0) query.subject_class = class_->currentText().toStdString();
    if (verdict_->currentIndex() > 0) query.verdict = verdict_->currentIndex() == 1 ? "keep" : "redo";
    if (season_->isChecked()) query.season = QDate::currentDate().toString(Qt::ISODate).toStdString();
    controller_.search(query, this, [this, asked = ++asked_](LogController::Found found) {
        if (asked != asked_) return;
        const QSignalBlocker quiet(class_);
        const auto chosen = class_->currentText();
        class_->clear();
        class_->addItem(tr("all classes"));
        for (const auto& one : found.classes) class_->addItem(toQt(one));
        class_->setCurrentIndex(std::max(0, class_->findText(chosen)));
        const auto shown = found.entries.size();
        const bool asks = !words_->text().isEmpty() ||
                          kind_->currentIndex() + class_->currentIndex() + verdict_->currentIndex() > 0 ||
                          season_->isChecked();
        const auto all = static_cast<double>(found.all);
        found_->setText(
            found.all > shown ? tr("%1 found; the newest %2.").arg(found.all).arg(shown)
            : found.all > 0   ? tr("%1.").arg(toQt(text::count_text(all, "entry", "entries")))
            : asks            ? tr("Nothing of the kind was logged.")
                   : tr("Nothing was logged yet. Every run, every look at frames in Proof and all that turns out "
                        "about your gear is entered here by itself; what else happened can be written down."));
        if (controller_.isMadeUp())
            found_->setText(found_->text() + tr(" A year that never was: your own log is not touched."));
        page_->setVisible(found.all > 0 || asks);  // of an empty log there is nothing to show
        board_->setEntries(std::move(found.entries));
        look();
    });
}

void LogTab::look() {
    const auto id = board_->chosen();
    if (id == 0) {
        shown_.reset();
        ofShot_.clear();
        return showEntry();
    }
    controller_.look(id, this, [this, id](std::optional<log::Entry> entry) {
        if (board_->chosen() != id) return;
        shown_ = std::move(entry);
        ofShot_.clear();
        differs_->setText({});
        showEntry();
        if (shown_) lookAtShot();
    });
}

/// What else was logged of the same shot; and frames and picture of its last run, where this one has none.
void LogTab::lookAtShot() {
    constexpr std::size_t most = 500;
    controller_.search({.shoot = shown_->shoot, .name = shown_->name, .most = most}, this,
                       [this, id = shown_->id](LogController::Found found) {
                           if (!shown_ || shown_->id != id) return;
                           ofShot_ = std::move(found.entries);
                           showEntry();
                           const bool framed = std::ranges::any_of(
                               shown_->exposed, [](const auto& frame) { return !frame.picture.empty(); });
                           if (framed && !shown_->picture.empty()) return;
                           const auto run = std::ranges::find_if(
                               ofShot_, [](const log::Entry& one) { return one.kind == log::Kind::run; });
                           if (run == ofShot_.end() || run->id == id) return;
                           controller_.look(run->id, this, [this, id, framed](std::optional<log::Entry> entry) {
                               if (!shown_ || shown_->id != id || !entry) return;
                               if (!framed) shown_->exposed = std::move(entry->exposed);
                               if (shown_->picture.empty()) shown_->picture = std::move(entry->picture);
                               showEntry();
                           });
                       });
}

/// Small pictures side by side, as many to a line as there is room for.
QPixmap LogTab::contactSheet() const {
    std::vector<QPixmap> pictures;
    for (const auto& frame : shown_->exposed) {
        QPixmap one;
        if (!frame.picture.empty() && one.loadFromData(QByteArray::fromStdString(frame.picture)))
            pictures.push_back(one.scaled(64, 48, Qt::KeepAspectRatio, Qt::SmoothTransformation));
    }
    if (pictures.empty()) return {};
    constexpr int across = 4, wide = 68, tall = 52;
    const int rows = (static_cast<int>(pictures.size()) + across - 1) / across;
    QPixmap sheet(across * wide, rows * tall);
    sheet.fill(theme().panel);
    QPainter painter(&sheet);
    for (std::size_t i = 0; i < pictures.size(); ++i)
        painter.drawPixmap(static_cast<int>(i) % across * wide, static_cast<int>(i) / across * tall, pictures[i]);
    return sheet;
}

/// "3 runs, 2 kept, 1 redone": of the shot, whatever the list leaves out.
QString LogTab::allOfShot() const {
    int runs = 0, kept = 0, redone = 0;
    for (const auto& one : ofShot_) {
        runs += one.kind == log::Kind::run ? 1 : 0;
        if (one.kind != log::Kind::proof) continue;
        (one.verdict == "keep" ? kept : redone) += 1;
    }
    QStringList words;
    if (runs > 0) words << toQt(text::count_text(runs, "run", "runs"));
    if (kept > 0) words << tr("%1 kept").arg(kept);
    if (redone > 0) words << tr("%1 redone").arg(redone);
    return words.join(QStringLiteral(", "));
}

void LogTab::showEntry() {
    const bool any = shown_.has_value();
    begin_->setEnabled(any && !shown_->plan.empty());
    forget_->setEnabled(any);
    std::vector<Fact> facts;
    QPixmap picture;
    if (any) {
        const auto& e = *shown_;
        const auto fact = [&](const QString& name, const std::string& value) {
            if (!value.empty()) facts.push_back({name, toQt(value)});
        };
        fact(tr("When"), e.time.size() >= 16 ? e.time.substr(0, 10) + ", " + e.time.substr(11, 5) : e.time);
        fact(tr("Shoot"), e.shoot);
        fact(tr("Class"), e.subject_class);
        fact(tr("Of"), e.words);
        fact(tr("Where"), e.place);
        fact(tr("Sun there"), sunThen(e));
        fact(tr("Wind"), e.wind);
        fact(tr("Camera"), e.camera);
        fact(tr("Lens"), e.lens);
        fact(tr("Light"), e.unit.empty() ? e.light : e.unit);
        fact(tr("Held by"), e.support);
        if (e.f_number) fact(tr("Taken at"), text::f_number_text(*e.f_number));
        if (e.magnification) fact(tr("Size"), text::magnification_text(*e.magnification));
        if (!e.exposed.empty()) fact(tr("Frames"), text::number_text(static_cast<double>(e.exposed.size()), 9));
        fact(tr("Showed"), e.causes);
        fact(tr("Remark"), e.remark);
        fact(tr("This shot"), allOfShot().toStdString());
        picture.loadFromData(QByteArray::fromStdString(e.picture));
    }
    facts_->setFacts(std::move(facts));
    picture_->setPixmap(picture.isNull() ? QPixmap()
                                         : picture.scaled(270, 168, Qt::KeepAspectRatio, Qt::SmoothTransformation));
    const auto sheet = any ? contactSheet() : QPixmap();
    thumbnails_->setPixmap(sheet);
    thumbnails_->setVisible(!sheet.isNull());
    picture_->setText(any && picture.isNull() ? tr("no picture was kept") : QString());
}

void LogTab::begin() {
    if (!shown_ || shown_->plan.empty()) return;
    auto made = log::start_from(*shown_, document_.shoot());
    if (!made) {
        differs_->setText(toQt(text::message(made.error())));
        return;
    }
    auto& from = *made;
    QStringList words;
    for (const auto& one : from.differs) words << toQt(one);
    int at = 0;
    document_.edit({tr("Begin from the log")}, [&](shoot::Shoot& shoot) {
        from.shot.id = shoot::unique_shot_id(shoot, from.shot.name);
        at = static_cast<int>(shoot.shots.size());
        shoot.shots.push_back(std::move(from.shot));
    });
    document_.select(at);
    differs_->setText(words.isEmpty() ? tr("Begun as it was.") : words.join(QStringLiteral(". ")));
    if (words.isEmpty()) Q_EMIT shotWanted();
}

}  // namespace poquito::desk

#include "desk/book/moc_log_tab.moc"
