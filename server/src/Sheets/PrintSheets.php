<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\Model\PrintSheet as CoreSheet;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Failed;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Project\Project;

/** Prints all sheets of a project into one PDF. It is about the project, and of the revision that it was asked for at. */
final readonly class PrintSheets implements AskedFor
{
    /** part of the work that is done when what sheets show is gathered */
    private const GATHERED = 0.15;

    public function __construct(
        private EntityManagerInterface $entities,
        private Sheets $sheets,
        private SheetSubjects $subjects,
        private SheetPrinter $printer,
        private PrintedFiles $files,
    ) {
    }

    public static function name(): string
    {
        return 'print-sheets';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        $project = $this->project($about) ?? throw Refusal::notFound();
        if ([] === $this->sheets->of($about->project)) {
            throw Refusal::conflict('no-sheets', 'There are no sheets to be printed: propose a set first, or add one.', 'sheets');
        }

        return PrintedFiles::version($project);
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $project = $this->project($job->about);
        $sheets = null === $project ? [] : $this->sheets->of($job->about->project);
        if (null === $project || [] === $sheets) {
            return; // they have gone meanwhile
        }
        $version = PrintedFiles::version($project);
        $attempt->goesOn();
        $painter = new SheetPainter($this->subjects->of($project, $sheets, static fn () => $attempt->goesOn()));
        $attempt->goesOn(self::GATHERED);
        $count = \count($sheets);
        $part = static fn (float $done): float => self::GATHERED + (1.0 - self::GATHERED) * $done / (float) $count;
        try {
            $pdf = $this->printer->bound(
                self::drawn($painter, $sheets),
                $project->name(),
                array_map(static fn (CoreSheet $s, int $i): string => self::bookmark($s, $i), $sheets, array_keys($sheets)),
                static fn (int $pages) => $attempt->goesOn($part((float) $pages)),
            );
        } catch (UnusableSheet $e) {
            throw Failed::because($e->getMessage());
        }
        $attempt->write(fn () => $this->files->keep($job->about->project, $version, $pdf));
    }

    /**
     * @param list<CoreSheet> $sheets
     *
     * @return iterable<int, string>
     */
    private static function drawn(SheetPainter $painter, array $sheets): iterable
    {
        foreach ($sheets as $i => $sheet) {
            yield $i => SvgWriter::write($painter->sheet($sheet, $i + 1, \count($sheets)));
        }
    }

    private static function bookmark(CoreSheet $sheet, int $i): string
    {
        $name = trim("$sheet->number $sheet->part");

        return '' === $name ? 'Sheet '.($i + 1) : $name;
    }

    private function project(RowId $about): ?Project
    {
        return $about->project->equals($about->id) ? $this->entities->find(Project::class, $about->criteria()) : null;
    }
}
