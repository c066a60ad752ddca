<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FitReport;
use Plinth\Server\Fit\KnownLength;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;

/** What a sheet says of itself: from which drawings it was traced, how true they are, and what was checked. */
final readonly class HonestLine
{
    public function __construct(private EntityManagerInterface $entities, private FitReport $reports)
    {
    }

    public function of(Storey $storey): string
    {
        $said = [];
        $drawings = $this->entities->getRepository(Drawing::class)->findBy(['project' => $storey->project(), 'storey' => $storey->id()], ['id' => 'ASC']);
        foreach ($drawings as $drawing) {
            $values = $drawing->values();
            if (true === $values['hidden'] || 'plan' !== $values['kind']) {
                continue;
            }
            $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria());
            // As the ledger tells it now: what the page has shown since the fit was made counts.
            $report = null === $fit ? [] : $this->reports->of($fit, $drawing);
            $plusMinus = $report['plusMinusMmPer10m'] ?? null;
            $name = (string) $values['name'];
            /** @var list<array{id: string, residualMm: float, plusMinusMm: float}> $lengths */
            $lengths = $report['lengths'] ?? [];
            $said[] = \is_float($plusMinus) ? \sprintf('%s, ±%s mm over 10 m, %s', $name, self::figure($plusMinus), $this->checked($drawing, $lengths)) : "$name, not trued up";
        }

        return [] === $said ? 'Not traced from a drawing.' : 'Traced from '.implode('; ', $said).'.';
    }

    /** @param list<array{id: string, residualMm: float, plusMinusMm: float}> $lengths as they lie in the fit */
    private function checked(Drawing $drawing, array $lengths): string
    {
        $known = $this->entities->getRepository(KnownLength::class)->findBy(['project' => $drawing->project(), 'drawing' => $drawing->id()]);
        $heldOut = [];
        foreach ($known as $length) {
            if (true === $length->values()['heldOut']) {
                $heldOut[$length->id()->toRfc4122()] = true;
            }
        }
        $tested = array_filter($lengths, static fn (array $l): bool => isset($heldOut[$l['id']]));
        $hold = \count(array_filter($tested, static fn (array $l): bool => abs($l['residualMm']) <= $l['plusMinusMm']));
        $count = \count($tested);

        return match (true) {
            0 === $count => 'not checked',
            $hold === $count => 1 === $count ? 'its check length holds' : "its $count check lengths hold",
            1 === $count => 'its check length does not hold',
            default => "$hold of $count check lengths hold",
        };
    }

    private static function figure(float $mm): string
    {
        return $mm < 10.0 ? number_format($mm, 1, '.', '') : number_format($mm, 0, '.', '');
    }
}
