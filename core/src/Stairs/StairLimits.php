<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\StairLimit;
use Plinth\Core\Plan\Model\StairMeasure;
use Plinth\Core\Units\Length;

/**
 * What a project asks of its stairs: what its author has set, and for the rest what is common in a dwelling. None of it is law here: where
 * a bound comes from is said beside it.
 */
final readonly class StairLimits
{
    /** Goings of one stair that differ by more are felt, mm; common practice, no source. */
    private const UNEVEN_MM = 10.0;

    /** Approved Document K, a stair within one dwelling, from memory. */
    private const DWELLING = 'a stair within a dwelling, Approved Document K';
    private const COMMON = 'common practice';

    /** @param array<string, StairLimit> $limits by measure, one for each */
    private function __construct(public array $limits)
    {
    }

    /** @param list<StairLimit> $own of a project */
    public static function of(array $own): self
    {
        $limits = [];
        foreach ([
            new StairLimit(StairMeasure::Rise, 150.0, 220.0, self::DWELLING),
            new StairLimit(StairMeasure::Going, 220.0, 300.0, self::DWELLING),
            new StairLimit(StairMeasure::Stride, 550.0, 700.0, self::DWELLING),
            new StairLimit(StairMeasure::Pitch, null, 42.0, self::DWELLING),
            new StairLimit(StairMeasure::Width, 800.0, null, self::COMMON),
            new StairLimit(StairMeasure::Headroom, 2000.0, null, self::DWELLING),
            new StairLimit(StairMeasure::Handrail, 900.0, 1000.0, self::DWELLING),
            new StairLimit(StairMeasure::Under, 1500.0, null, self::COMMON),
            ...$own,
        ] as $limit) {
            $limits[$limit->measure->value] = $limit;
        }

        return new self($limits);
    }

    public function limit(StairMeasure $measure): StairLimit
    {
        return $this->limits[$measure->value] ?? throw new \LogicException("No limit of {$measure->value}.");
    }

    /**
     * @param float|null $underside mm, of the floor above over the floor where the stair begins; null where there is none
     *
     * @return list<StairFinding>
     */
    public function findings(StairForm $form, ?float $underside): array
    {
        $found = [...self::arrival($form)];
        $stair = $form->stair;
        $goings = $form->goings();
        $checks = [
            ['stair-rise', $this->bound(StairMeasure::Rise, 'Each riser', $form->rise), $this->other($form)],
            ['stair-stride', $this->bound(StairMeasure::Stride, 'Twice a rise and a going', $form->stride()), null],
        ];
        if ([] !== $goings) {
            $isLarge = max($goings) > ($this->limit(StairMeasure::Going)->most ?? \INF);
            [$what, $is] = $isLarge ? ['The largest going', max($goings)] : ['The least going', min($goings)];
            $checks[] = ['stair-going', $this->bound(StairMeasure::Going, $what, $is), null];
        }
        if (!$this->isWound($form)) {
            $checks[] = ['stair-width', $this->bound(StairMeasure::Width, 'The stair’s width', $form->width()), null];
        }
        if (null !== $underside) {
            $checks[] = ['stair-headroom', $this->bound(StairMeasure::Headroom, 'Headroom', $form->headroom($underside)), null];
        }
        $checks[] = ['stair-pitch', $this->bound(StairMeasure::Pitch, 'Its pitch', $form->pitch()), null];
        if ($stair->leftRail || $stair->rightRail) {
            $checks[] = ['stair-handrail', $this->bound(StairMeasure::Handrail, 'The handrail’s height', $stair->railHeight), null];
        }
        if ([] !== $goings && max($goings) - min($goings) > self::UNEVEN_MM) {
            $checks[] = ['stair-uneven', \sprintf(
                'Goings differ: %s to %s. Move a corner of its line, or trace the treads alike.',
                Length::told(min($goings)),
                Length::told(max($goings)),
            ), null];
        }
        foreach ($checks as [$code, $message, $mend]) {
            if (null !== $message) {
                $at = new Point(...$form->treads[0]->below()[0]);
                $found[] = new StairFinding($code, $stair->id, $at, $message, $mend === $stair->risers ? null : $mend);
            }
        }

        return $found;
    }

    /** What is wrong with a measure, and by whose word; null where it keeps within its limit. */
    private function bound(StairMeasure $measure, string $what, float $is): ?string
    {
        $limit = $this->limit($measure);
        [$told, $slack] = StairMeasure::Pitch === $measure
            ? [static fn (float $degrees): string => round($degrees, 1).'°', 0.005]
            : [Length::told(...), 0.05];

        [$than, $bound] = match (true) {
            null !== $limit->least && $is < $limit->least - $slack => ['less', $limit->least],
            null !== $limit->most && $is > $limit->most + $slack => ['more', $limit->most],
            default => [null, 0.0],
        };

        return null === $than ? null : \sprintf('%s is %s, %s than %s (%s).', $what, $told($is), $than, $told($bound), $limit->standing);
    }

    /** @return list<StairFinding> */
    private static function arrival(StairForm $form): array
    {
        $found = [];
        [$is, $needed] = [\count($form->treads), $form->stair->risers - 1];
        if ($is !== $needed) {
            $top = $form->treads[$is - 1]->above();
            $found[] = new StairFinding('stair-arrival', $form->stair->id, new Point(...$top[0]), \sprintf(
                '%d treads are traced, and %d risers need %d: the last one ends %s %s the floor above. Take %d risers, or %s.',
                $is,
                $form->stair->risers,
                $needed,
                Length::told(abs($form->short())),
                $is < $needed ? 'under' : 'over',
                $is + 1,
                $is < $needed ? \sprintf('trace %d more', $needed - $is) : \sprintf('take %d away', $is - $needed),
            ), $is + 1);
        }
        foreach ($form->apart as $number) {
            $found[] = new StairFinding(
                'stair-apart',
                $form->stair->id,
                new Point(...$form->treads[$number - 1]->above()[0]),
                \sprintf('Treads %d and %d do not meet: trace the edge between them along both.', $number, $number + 1),
            );
        }

        return $found;
    }

    /** Winders and round stairs run to a point at their inner edge. */
    private function isWound(StairForm $form): bool
    {
        foreach ($form->treads as $tread) {
            if (!$tread->isLanding && !$tread->isStraight && !$form->stair->isFree()) {
                return true;
            }
        }

        return false;
    }

    /** How many risers would keep within bounds, as near to those there are as may be. */
    private function other(StairForm $form): ?int
    {
        $limit = $this->limit(StairMeasure::Rise);
        $least = max(2, (int) ceil($form->height / ($limit->most ?? \INF) - 1e-9));
        $most = null === $limit->least ? \PHP_INT_MAX : (int) floor($form->height / $limit->least + 1e-9);

        // Of traced treads a number alone mends nothing: more would have to be traced.
        return $form->stair->isFree() || $most < $least ? null : max($least, min($most, $form->stair->risers));
    }
}
