<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Units\Length;

/**
 * What a project asks of its stairs. None of it is law here: where a bound comes from is said beside it.
 */
final readonly class StairLimits
{
    /** Goings of one stair that differ by more are felt, mm; common practice, no source. */
    private const UNEVEN_MM = 10.0;

    /**
     * @param array{float, float} $rise mm, least and most
     * @param array{float, float} $going mm
     * @param array{float, float} $stride mm, of twice a rise and a going
     * @param float $pitch degrees, steepest
     * @param float $width mm, least
     * @param float $headroom mm, least
     * @param string $standing where these come from
     */
    public function __construct(
        public array $rise,
        public array $going,
        public array $stride,
        public float $pitch,
        public float $width,
        public float $headroom,
        public string $standing,
    ) {
    }

    /** A stair within one dwelling: Approved Document K, from memory; its width is common practice, no source. */
    public static function dwelling(): self
    {
        $standing = 'a stair within a dwelling, Approved Document K';

        return new self([150.0, 220.0], [220.0, 300.0], [550.0, 700.0], 42.0, 800.0, 2000.0, $standing);
    }

    /**
     * @param float|null $underside mm, of the floor above over the floor where the stair begins; null where there is none
     *
     * @return list<StairFinding>
     */
    public function findings(StairForm $form, ?float $underside): array
    {
        $found = [...self::arrival($form)];
        $first = $form->treads[0];
        $told = static fn (float $mm): string => Length::told($mm);
        $bound = fn (string $what, float $is, float $least, float $most): ?string => match (true) {
            $is < $least - 0.05 => \sprintf('%s is %s, less than %s (%s).', $what, $told($is), $told($least), $this->standing),
            $is > $most + 0.05 => \sprintf('%s is %s, more than %s (%s).', $what, $told($is), $told($most), $this->standing),
            default => null,
        };
        $risers = $form->stair->risers;
        $goings = $form->goings();
        $checks = [
            ['stair-rise', $bound('Each riser', $form->rise, ...$this->rise), self::other($form, $this->rise)],
            ['stair-stride', $bound('Twice a rise and a going', $form->stride(), ...$this->stride), null],
        ];
        if ([] !== $goings) {
            $checks[] = ['stair-going', $bound('The least going', min($goings), $this->going[0], \INF)
                ?? $bound('The largest going', max($goings), 0.0, $this->going[1]), null];
        }
        $checks[] = ['stair-width', $bound('The stair', $form->width(), $this->isWound($form) ? 0.0 : $this->width, \INF), null];
        if (null !== $underside && $form->headroom($underside) < $this->headroom - 0.05) {
            $checks[] = ['stair-headroom', \sprintf(
                'Headroom is %s, less than %s (%s).',
                $told($form->headroom($underside)),
                $told($this->headroom),
                $this->standing,
            ), null];
        }
        if ($form->pitch() > $this->pitch + 0.005) {
            $checks[] = ['stair-pitch', \sprintf(
                'It is pitched at %.1f°, steeper than %.0f° (%s).',
                $form->pitch(),
                $this->pitch,
                $this->standing,
            ), null];
        }
        if ([] !== $goings && max($goings) - min($goings) > self::UNEVEN_MM) {
            $checks[] = ['stair-uneven', \sprintf(
                'Goings differ: %s to %s. Move a corner of its line, or trace the treads alike.',
                $told(min($goings)),
                $told(max($goings)),
            ), null];
        }
        foreach ($checks as [$code, $message, $mend]) {
            if (null !== $message) {
                $at = new Point(...$first->below()[0]);
                $found[] = new StairFinding($code, $form->stair->id, $at, $message, $mend === $risers ? null : $mend);
            }
        }

        return $found;
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

    /**
     * How many risers would keep within bounds, as near to those there are as may be.
     *
     * @param array{float, float} $rise
     */
    private static function other(StairForm $form, array $rise): ?int
    {
        [$least, $most] = [(int) ceil($form->height / $rise[1] - 1e-9), (int) floor($form->height / $rise[0] + 1e-9)];

        // Of traced treads a number alone mends nothing: more would have to be traced.
        return $form->stair->isFree() || $most < max(2, $least) ? null : max($least, 2, min($most, $form->stair->risers));
    }
}
