#include "desk/shell/handbook_window.hpp"

#include "desk/session/shipped_handbook.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/theme.hpp"

#include <QFile>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QRegularExpression>
#include <QScrollBar>
#include <QShortcut>
#include <QStringListModel>
#include <QTextBlock>
#include <QTextBrowser>
#include <QTextList>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr int chapter_level = 2;  // of its heading

template <typename Take>
void eachChapter(const QTextDocument& document, const Take& take) {
    int row = 0;
    for (auto block = document.begin(); block.isValid(); block = block.next())
        if (block.blockFormat().headingLevel() == chapter_level) take(row++, block);
}

/// Without the indents of lines that go on with an item: Qt would keep them as gaps in the text.
QString flowing(const QString& markdown) {
    static const QRegularExpression broken(QStringLiteral("\\n +(?=[^\\s*0-9-])"));
    QString text = markdown;
    return text.replace(broken, QStringLiteral(" "));
}

/// What is read beside the stations, and the words, as chapters of it.
QString pagesAsMarkdown() {
    const auto& book = shippedHandbook();
    QString text;
    const handbook::Page* before = nullptr;
    for (const auto& page : book.pages) {
        if (!before || before->station != page.station)
            text += QStringLiteral("\n\n## %1\n")
                        .arg(HandbookWindow::tr("%1: what stands behind it")
                                 .arg(QLatin1String(advice::station_name(page.station))));
        before = &page;
        text += QStringLiteral("\n\n### %1\n").arg(toQt(page.title));
        for (const auto& paragraph : handbook::read(page, {})) text += QStringLiteral("\n%1\n").arg(toQt(paragraph));
    }
    text += QStringLiteral("\n\n## %1\n\n").arg(HandbookWindow::tr("Words"));
    auto words = book.words;
    std::ranges::sort(words, [](const auto& a, const auto& b) {
        return QString::compare(toQt(a.word), toQt(b.word), Qt::CaseInsensitive) < 0;
    });
    for (const auto& word : words) text += QStringLiteral("- **%1.** %2\n").arg(toQt(word.word), toQt(word.says));
    return text;
}

/// The chapter about what is shown, by its object name.
QString chapterAbout(const QString& shown) {
    static const std::pair<const char*, const char*> chapters[] = {{"hoursTab", "Three sheets"},
                                                                   {"setsTab", "Sets, outlets, plates"},
                                                                   {"outletsTab", "Sets, outlets, plates"},
                                                                   {"packingTab", "Sets, outlets, plates"},
                                                                   {"sunTab", "The sun"},
                                                                   {"seasonsTab", "The sun"},
                                                                   {"kitTab", "The kit room"},
                                                                   {"logTab", "The log"},
                                                                   {"lessonsTab", "The log"},
                                                                   {"protocolsTab", "The log"},
                                                                   {"reviewTab", "The log"},
                                                                   {"practiceTab", "Practice"},
                                                                   {"runningView", "Running a stack"}};
    for (const auto& [name, chapter] : chapters)
        if (shown == QLatin1String(name)) return QLatin1String(chapter);
    return QStringLiteral("Three sheets");
}

}  // namespace

HandbookWindow::HandbookWindow(QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("handbook"));
    setWindowTitle(tr("Handbook"));
    resize(900, 680);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(14, 12, 14, 12);
    row->setSpacing(16);
    auto* side = new QVBoxLayout;
    side->setSpacing(6);
    search_ = new QLineEdit(this);
    search_->setPlaceholderText(tr("Look for a word"));
    nameControl(search_, {"handbookSearch", tr("Look for a word"), tr("Enter goes to the next place")});
    search_->setFixedWidth(210);
    side->addWidget(search_);
    found_ = new QLabel(this);
    found_->setObjectName(QStringLiteral("handbookFound"));
    found_->setProperty("quiet", true);
    found_->setFont(textFont(11));
    found_->hide();
    side->addWidget(found_);
    chapters_ = new QStringListModel(this);
    contents_ = new QListView(this);
    contents_->setModel(chapters_);
    contents_->setFixedWidth(210);
    contents_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    contents_->setFrameShape(QFrame::NoFrame);
    contents_->setWordWrap(true);
    contents_->setSpacing(2);
    nameControl(contents_, {"handbookChapters", tr("Chapters"), {}});
    side->addWidget(contents_, 1);
    row->addLayout(side);
    text_ = new QTextBrowser(this);
    text_->setOpenLinks(false);
    text_->setFrameShape(QFrame::NoFrame);
    nameControl(text_, {"handbookText", tr("Text of the handbook"), {}});
    row->addWidget(text_, 1);

    load();
    connect(contents_, &QListView::clicked, this, [this](const QModelIndex& index) { goToChapter(index.row()); });
    connect(contents_, &QListView::activated, this, [this](const QModelIndex& index) { goToChapter(index.row()); });
    connect(search_, &QLineEdit::textEdited, this, [this](const QString& words) { find(words, false); });
    connect(search_, &QLineEdit::returnPressed, this, [this] { find(search_->text(), true); });
    connect(text_->verticalScrollBar(), &QScrollBar::valueChanged, this, &HandbookWindow::markChapter);
    auto* look = new QShortcut(QKeySequence::Find, this);
    connect(look, &QShortcut::activated, search_, qOverload<>(&QWidget::setFocus));
    contents_->setFocus();
    markChapter();
}

void HandbookWindow::load() {
    QFile file(QStringLiteral(":/docs/handbook.md"));
    if (!file.open(QIODevice::ReadOnly)) return;
    auto* document = text_->document();
    document->setDefaultFont(textFont(13));
    document->setDocumentMargin(10);
    document->setMarkdown(flowing(QString::fromUtf8(file.readAll())) + pagesAsMarkdown());
    // Headings in the desk's own sizes, lines with air.
    QStringList names;
    QTextCursor cursor(document);
    for (auto block = document->begin(); block.isValid(); block = block.next()) {
        const int level = block.blockFormat().headingLevel();
        cursor.setPosition(block.position());
        auto format = block.blockFormat();
        format.setLineHeight(130, QTextBlockFormat::ProportionalHeight);
        if (level > 0)
            format.setTopMargin(level == chapter_level ? 20 : level > chapter_level ? 10 : 4);
        else
            format.setBottomMargin(block.textList() || block.next().textList() ? 2 : 8);
        cursor.setBlockFormat(format);
        if (level == 0) {
            // The lettering has no bolder face than this.
            for (auto part = block.begin(); !part.atEnd(); ++part) {
                if (part.fragment().charFormat().fontWeight() <= QFont::DemiBold) continue;
                cursor.setPosition(part.fragment().position());
                cursor.setPosition(part.fragment().position() + part.fragment().length(), QTextCursor::KeepAnchor);
                QTextCharFormat letters;
                letters.setFontWeight(QFont::DemiBold);
                cursor.mergeCharFormat(letters);
            }
            continue;
        }
        cursor.movePosition(QTextCursor::EndOfBlock, QTextCursor::KeepAnchor);
        QTextCharFormat letters;
        letters.setFont(textFont(level == 1 ? 20 : level == chapter_level ? 15 : 13, QFont::DemiBold));
        cursor.setCharFormat(letters);
        if (level == chapter_level) names << block.text();
    }
    chapters_->setStringList(names);
    text_->moveCursor(QTextCursor::Start);
}

QString HandbookWindow::chapterShown() const { return contents_->currentIndex().data().toString(); }

void HandbookWindow::goToChapter(int wanted) {
    eachChapter(*text_->document(), [&](int row, const QTextBlock& block) {
        if (row != wanted) return;
        goToBlock(block);
    });
}

void HandbookWindow::goToBlock(const QTextBlock& block) {
    const QTextCursor cursor(block);
    text_->setTextCursor(cursor);
    auto* bar = text_->verticalScrollBar();
    bar->setValue(bar->value() + text_->cursorRect(cursor).top() - 8);
    markChapter();
}

void HandbookWindow::goToHeading(const QString& heading) {
    const auto* document = text_->document();
    for (auto block = document->begin(); block.isValid(); block = block.next())
        if (block.blockFormat().headingLevel() > 0 && block.text() == heading) return goToBlock(block);
}

void HandbookWindow::goTo(const QString& place) {
    const auto* page = handbook::find_page(shippedHandbook(), place.toStdString());
    goToHeading(page ? toQt(page->title) : chapterAbout(place));
}

/// The chapter at the top of what is shown.
void HandbookWindow::markChapter() {
    const int top = text_->cursorForPosition({10, 24}).position();
    int shown = 0;
    eachChapter(*text_->document(), [&](int row, const QTextBlock& block) {
        if (block.position() <= top) shown = row;
    });
    contents_->setCurrentIndex(chapters_->index(shown));
}

void HandbookWindow::find(const QString& words, bool next) {
    auto* document = text_->document();
    auto cursor = text_->textCursor();
    if (!next) cursor.setPosition(0);
    auto hit = words.isEmpty() ? QTextCursor() : document->find(words, cursor);
    if (hit.isNull() && !words.isEmpty()) hit = document->find(words, 0);  // round again
    int count = 0;
    for (auto at = document->find(words, 0); !words.isEmpty() && !at.isNull(); at = document->find(words, at)) ++count;
    found_->setText(words.isEmpty() ? QString() : count == 0 ? tr("nowhere") : tr("in %n place(s)", nullptr, count));
    found_->setVisible(!words.isEmpty());
    if (hit.isNull()) return;
    text_->setTextCursor(hit);
    text_->ensureCursorVisible();
}

/// The theme changed: lettering has its colours from the palette, headings their font anew.
void HandbookWindow::changeEvent(QEvent* event) {
    QDialog::changeEvent(event);
    if (event->type() != QEvent::PaletteChange || !text_) return;
    const int at = text_->verticalScrollBar()->value();
    load();
    text_->verticalScrollBar()->setValue(at);
}

}  // namespace poquito::desk

#include "desk/shell/moc_handbook_window.moc"
