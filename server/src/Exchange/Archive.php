<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\SheetsDocument\SheetsWriter;
use Plinth\Core\Exchange\Zip\ZipFile;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Project;
use Plinth\Server\Sheets\SheetSubjects;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Source;

/**
 * A whole project as one file: every row that somebody made, every source byte for byte, and the plan document for whoever has other
 * programs. What follows from these is worked out again. The same project is the same file. `docs/archive-format.md`
 */
final readonly class Archive
{
    public const FORMAT = 'zesty-plinth/archive';
    public const VERSION = 1;
    public const ROWS = 'project.json';
    public const PLAN = 'plan.json';
    public const SOURCES = 'sources/';

    public function __construct(
        private EntityManagerInterface $entities,
        private Kinds $kinds,
        private FileStore $files,
        private SheetSubjects $subjects,
        private LatestChange $latest,
    ) {
    }

    /** Writes it, as it is at one moment, to a file. */
    public function write(Project $project, string $path): void
    {
        [$documents, $sources] = $this->entities->wrapInTransaction(fn (): array => [
            [
                self::ROWS => self::json([
                    'format' => self::FORMAT, 'version' => self::VERSION, 'id' => $project->id()->toRfc4122(),
                    'changed' => $this->latest->of($project)->format(\DATE_ATOM), 'project' => $project->values(), 'rows' => $this->rows($project),
                ]),
                self::PLAN => $this->plan($project),
            ],
            $this->entities->getRepository(Source::class)->findBy(['project' => $project->id()], ['id' => 'ASC']),
        ]);
        $from = [];
        foreach ($sources as $source) {
            $from[self::SOURCES.$source->sha256()] = $this->files->source($source->sha256()) ?? throw Refusal::conflict(
                'source-missing',
                \sprintf(
                    'The file of “%s” is missing in the store of source files, or damaged there. Restore the store from its copy, or remove this source, and take the archive again.',
                    $source->name(),
                ),
                $source->id()->toRfc4122(),
            );
        }
        ZipFile::write($path, $documents, [], $from);
    }

    /** @return array<string, list<array<string, scalar|null>>> by kind, in an order in which each names earlier ones */
    private function rows(Project $project): array
    {
        $rows = [];
        foreach ($this->kinds->classes as $name => $class) {
            if (Project::class !== $class) {
                $found = $this->entities->getRepository($class)->findBy(['project' => $project->id()], ['id' => 'ASC']);
                $rows[$name] = array_map(
                    static fn (ProjectRow $row): array => ['id' => $row->id()->toRfc4122()] + $row->values(),
                    $found,
                );
            }
        }

        return array_filter($rows);
    }

    private function plan(Project $project): string
    {
        [$plan, $sheets, $sides] = $this->subjects->documented($project);

        return self::json([...PlanWriter::document($plan), ...SheetsWriter::parts($sheets, $sides)]);
    }

    /** @param array<string, mixed> $value */
    private static function json(array $value): string
    {
        return json_encode(
            $value,
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION,
        );
    }
}
