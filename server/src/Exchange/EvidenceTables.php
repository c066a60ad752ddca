<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\Tables\Table;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FitReport;
use Plinth\Server\Fit\KnownLength;
use Plinth\Server\Plan\Figure;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;

/** What the plan rests on, in tables: drawings with how true they are, known lengths with what is left over, figures beside what is traced. */
final readonly class EvidenceTables
{
    public function __construct(private EntityManagerInterface $entities, private FitReport $reports)
    {
    }

    /** @return list<Table> without those that would have no row */
    public function of(Project $project): array
    {
        $drawings = $this->rows(Drawing::class, $project);
        $reports = [];
        foreach ($drawings as $drawing) {
            $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria());
            // As the ledger tells it now.
            $reports[$drawing->id()->toRfc4122()] = JsonValue::of(null === $fit ? [] : $this->reports->of($fit, $drawing));
        }
        $tables = [$this->drawings($drawings, $reports), $this->lengths($project, $drawings, $reports), $this->figures($project)];

        return array_values(array_filter($tables, static fn (Table $t): bool => [] !== $t->rows));
    }

    /**
     * @param list<Drawing> $drawings
     * @param array<string, JsonValue> $reports by id of drawing
     */
    private function drawings(array $drawings, array $reports): Table
    {
        $rows = [];
        foreach ($drawings as $drawing) {
            $report = $reports[$drawing->id()->toRfc4122()];
            $rows[] = [
                self::word($drawing, 'name'), self::word($drawing, 'kind'), self::number($report, 'scale'), self::number($report, 'plusMinusMmPer10m'),
                \count($report->list('lengths')),
            ];
        }

        return new Table('Drawings', ['drawing', 'kind', 'scale 1:', '± mm over 10 m', 'known lengths'], $rows);
    }

    /**
     * @param list<Drawing> $drawings
     * @param array<string, JsonValue> $reports
     */
    private function lengths(Project $project, array $drawings, array $reports): Table
    {
        $known = [];
        foreach ($this->rows(KnownLength::class, $project) as $length) {
            $known[$length->id()->toRfc4122()] = $length;
        }
        $rows = [];
        foreach ($drawings as $drawing) {
            foreach ($reports[$drawing->id()->toRfc4122()]->list('lengths') as $found) {
                $length = $known[$found->get('id')->text()] ?? null;
                if (null !== $length) {
                    $rows[] = [
                        self::word($drawing, 'name'), self::word($length, 'text'), self::mm($length->values()['mm']), self::number($found, 'fittedMm'),
                        self::number($found, 'residualMm'), self::number($found, 'plusMinusMm'),
                        true === $length->values()['heldOut'] ? 'check' : 'holds the fit',
                    ];
                }
            }
        }

        return new Table('Known lengths', ['drawing', 'as figured', 'figured mm', 'fitted mm', 'left over mm', '± mm', 'used as'], $rows);
    }

    private function figures(Project $project): Table
    {
        $storeys = [];
        foreach ($this->rows(Storey::class, $project) as $storey) {
            $storeys[$storey->id()->toRfc4122()] = $storey->name();
        }
        $rows = [];
        foreach ($this->rows(Figure::class, $project) as $figure) {
            ['mm' => $mm, 'tracedMm' => $traced, 'siteMm' => $site] = $figure->values();
            $rows[] = [
                $storeys[self::word($figure, 'storey')] ?? '', self::word($figure, 'text'), self::mm($mm), self::mm($traced),
                null === $traced ? null : self::mm((float) $traced - (float) $mm), self::mm($site), self::word($figure, 'decided'),
                self::word($figure, 'reason'),
            ];
        }

        return new Table('Figured against traced', [
            'storey', 'as figured', 'figured mm', 'traced mm', 'traced more mm', 'on site mm', 'decided', 'why',
        ], $rows);
    }

    /**
     * @template T of \Plinth\Server\Change\ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T>
     */
    private function rows(string $class, Project $project): array
    {
        return $this->entities->getRepository($class)->findBy(['project' => $project->id()], ['id' => 'ASC']);
    }

    private static function word(Drawing|KnownLength|Figure $row, string $name): string
    {
        return (string) $row->values()[$name];
    }

    private static function number(JsonValue $of, string $name): ?float
    {
        return self::mm($of->optional($name)?->number());
    }

    private static function mm(mixed $mm): ?float
    {
        return is_numeric($mm) ? round((float) $mm, 1) : null;
    }
}
