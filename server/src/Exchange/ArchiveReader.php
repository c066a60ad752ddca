<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\Zip\ZipReader;
use Plinth\Server\Account\User;
use Plinth\Server\Change\ChangeState;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\Occasion;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Project;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\Inspector;
use Plinth\Server\Source\Source;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** Makes a project of an archive: all of it, judged by the rules that hold for whatever is sent, or nothing. */
final readonly class ArchiveReader
{
    /** bytes of all that is in it */
    private const MOST = 2_000_000_000;
    private const MOST_OF_ROWS = 40_000_000;
    private const MOST_ROWS = 100_000;
    private const PROJECT = ['name', 'purpose', 'unit', 'shows', 'areas', 'course', 'unitLength', 'joint'];

    public function __construct(
        private EntityManagerInterface $entities,
        private Kinds $kinds,
        private Recorder $recorder,
        private FileStore $files,
    ) {
    }

    /**
     * @return Uuid of the project; that of the archive where it is free
     *
     * @throws Refusal|UnreadableDocument with its place
     */
    public function read(string $path, User $user): Uuid
    {
        $zip = ZipReader::open($path, self::MOST);
        if (!$zip->has(Archive::ROWS)) {
            throw Refusal::invalid('no-archive', 'This ZIP file is no archive of a project: it has no project.json.', 'file');
        }
        $document = JsonValue::parse($zip->text(Archive::ROWS, self::MOST_OF_ROWS))->object(['format', 'version', 'id', 'changed', 'project', 'rows']);
        if (Archive::FORMAT !== $document->get('format')->text() || Archive::VERSION !== $document->get('version')->count()) {
            throw Refusal::invalid('no-archive', \sprintf('This is no archive of a project that can be read: it should be %s, version %d.', Archive::FORMAT, Archive::VERSION), 'format');
        }
        $rows = $this->rows($document->get('rows'));
        $this->files->refuseWithoutRoom((int) filesize($path));
        $folder = $this->files->workFolder();
        try {
            $sources = self::sources($zip, $rows[Source::class] ?? [], $folder);
            self::checkPages($rows[Page::class] ?? []);

            return $this->entities->wrapInTransaction(fn (): Uuid => $this->add($document, $rows, $sources, $user));
        } finally {
            $this->files->removeFolder($folder);
        }
    }

    /**
     * @param array<class-string<ProjectRow>, list<array{Uuid, array<string, mixed>, string}>> $rows
     * @param list<string> $sources paths
     */
    private function add(JsonValue $document, array $rows, array $sources, User $user): Uuid
    {
        $id = RowValues::uuid($document->get('id'));
        if (null !== $this->entities->find(Project::class, (new RowId($id, $id))->criteria())) {
            $id = new UuidV7();
        }
        $project = Project::of($id, $user);
        $project->take(new RowValues($document->get('project')->map(), 'project', self::PROJECT));
        $this->entities->persist($project);
        $this->entities->flush();
        $changed = self::moment($document->get('changed'));
        $title = 'As archived';
        $this->recorder->record($id, $user, new UuidV7(), $title, function (Workspace $workspace) use ($rows, $sources): void {
            foreach ($rows as $class => $some) {
                self::addAll($workspace, $class, $some);
            }
            array_map($this->files->takeIn(...), $sources);
        }, Occasion::Replay, ChangeState::Left, $changed); // the beginning of a project is not undone

        return $id;
    }

    /**
     * Rows that name others of their own kind come after those.
     *
     * @param class-string<ProjectRow> $class
     * @param list<array{Uuid, array<string, mixed>, string}> $rows
     */
    private static function addAll(Workspace $workspace, string $class, array $rows): void
    {
        $own = array_filter($class::refers(), static fn ($by): bool => $by->to === $class);
        while ([] !== $rows) {
            $open = array_fill_keys(array_map(static fn (array $row): string => $row[0]->toRfc4122(), $rows), true);
            $later = [];
            foreach ($rows as $row) {
                [$id, $values, $at] = $row;
                $named = array_filter($own, static fn ($by): bool => \is_string($values[$by->field] ?? null) && isset($open[strtolower($values[$by->field])]));
                if ([] !== $named) {
                    $later[] = $row;
                    continue;
                }
                $workspace->add($class, $id, $values, $at);
            }
            if (\count($later) === \count($rows)) {
                throw UnreadableDocument::outOfRange($later[0][2], 'no row that names itself by way of others');
            }
            $rows = $later;
        }
    }

    /**
     * @return array<class-string<ProjectRow>, list<array{Uuid, array<string, mixed>, string}>> by kind, each with its id, values and place
     */
    private function rows(JsonValue $document): array
    {
        $kinds = array_filter($this->kinds->classes, static fn (string $class): bool => Project::class !== $class);
        $document->object(array_keys($kinds));
        [$rows, $count] = [[], 0];
        foreach ($kinds as $name => $class) {
            $seen = [];
            foreach ($document->list($name) as $row) {
                $id = RowValues::uuid($row->get('id'));
                if (isset($seen[$id->toRfc4122()])) {
                    throw UnreadableDocument::repeatedId($row->at, $id->toRfc4122());
                }
                $seen[$id->toRfc4122()] = true;
                $rows[$class][] = [$id, array_diff_key($row->map(), ['id' => true]), $row->at];
                if (++$count > self::MOST_ROWS) {
                    throw Refusal::tooMuch(\sprintf('An archive holds at most %d rows.', self::MOST_ROWS), $row->at);
                }
            }
        }

        return $rows;
    }

    /**
     * Takes the files of sources out, and looks whether they are what they are said to be.
     *
     * @param list<array{Uuid, array<string, mixed>, string}> $rows
     *
     * @return list<string> where they lie
     */
    private static function sources(ZipReader $zip, array $rows, string $folder): array
    {
        $paths = [];
        foreach ($rows as [, $values, $at]) {
            $value = JsonValue::of($values, $at);
            $sha256 = $value->get('sha256')->text();
            if (1 !== preg_match('/^[0-9a-f]{64}$/', $sha256)) {
                throw UnreadableDocument::outOfRange("$at/sha256", 'the SHA-256 of a file');
            }
            $name = Archive::SOURCES.$sha256;
            if (!isset($paths[$sha256])) {
                $zip->extract($name, "$folder/$sha256");
                $paths[$sha256] = "$folder/$sha256";
            }
            if ($sha256 !== hash_file('sha256', $paths[$sha256]) || filesize($paths[$sha256]) !== $value->get('bytes')->count()) {
                throw UnreadableDocument::damaged($name, 'it is not the file that was brought in');
            }
            if (Format::ofContent($paths[$sha256])?->value !== $value->get('mediaType')->text()) {
                throw UnreadableDocument::outOfRange("$at/mediaType", 'what the file is');
            }
        }

        return array_values($paths);
    }

    /** @param list<array{Uuid, array<string, mixed>, string}> $rows */
    private static function checkPages(array $rows): void
    {
        foreach ($rows as [, $values, $at]) {
            $page = JsonValue::of($values, $at);
            if ($page->get('width')->count() * $page->get('height')->count() > Inspector::MOST_PIXELS) {
                throw UnreadableDocument::outOfRange($at, \sprintf('a page of at most %d million pixels', Inspector::MOST_PIXELS / 1e6));
            }
        }
    }

    /** No later than now: nothing is from tomorrow. */
    private static function moment(JsonValue $value): \DateTimeImmutable
    {
        $at = \DateTimeImmutable::createFromFormat(\DATE_ATOM, $value->text());

        return false === $at ? throw UnreadableDocument::outOfRange($value->at, 'a moment such as 2026-05-03T09:30:00+00:00')
            : min($at->setTimezone(new \DateTimeZone('UTC')), new \DateTimeImmutable('now', new \DateTimeZone('UTC')));
    }
}
