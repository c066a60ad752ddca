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
            $plusMinus = null === $fit ? null : $this->reports->of($fit, $drawing)['plusMinusMmPer10m'];
            $name = (string) $values['name'];
            $said[] = \is_float($plusMinus) ? \sprintf('%s, ±%s mm over 10 m%s', $name, self::figure($plusMinus), $this->checked($drawing)) : "$name, not trued up";
        }

        return [] === $said ? 'Not traced from a drawing.' : 'Traced from '.implode('; ', $said).'.';
    }

    private function checked(Drawing $drawing): string
    {
        $lengths = $this->entities->getRepository(KnownLength::class)->findBy(['project' => $drawing->project(), 'drawing' => $drawing->id()]);
        $heldOut = \count(array_filter($lengths, static fn (KnownLength $l): bool => true === $l->values()['heldOut']));

        return match ($heldOut) {
            0 => ', not checked',
            1 => ', one check length',
            default => ", $heldOut check lengths",
        };
    }

    private static function figure(float $mm): string
    {
        return $mm < 10.0 ? number_format($mm, 1, '.', '') : number_format($mm, 0, '.', '');
    }
}
