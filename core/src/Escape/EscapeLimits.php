<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

use Plinth\Core\Plan\Model\EscapeLimit;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Core\Units\Length;

/** What a project asks of its ways out, held against them. Without a limit of its own nothing is asked: none is law here. */
final readonly class EscapeLimits
{
    private const WHAT = [
        'toExit' => 'The way to an exit', 'toFinal' => 'The way into the open air', 'single' => 'The part with one way only',
        'angle' => 'The angle between two ways', 'door' => 'The narrowest door',
    ];
    /** mm or degrees by which a limit may be missed: no plan is truer */
    private const SLACK = 0.05;

    /**
     * @param list<EscapeLimit> $limits
     * @param bool $knowsSeconds whether other ways were looked for: where they were not, nobody can say how far there is one alone
     */
    public function __construct(private array $limits, private bool $knowsSeconds = true)
    {
    }

    /** @return list<array{EscapeMeasure, string}> what a room does not keep, in words; no length of a way that is not there is kept */
    public function broken(RoomEscape $room): array
    {
        $broken = [];
        foreach ($this->limits as $limit) {
            $is = $this->measured($limit->measure, $room);
            $by = null === $is ? 0.0 : ($limit->measure->isLeast() ? $limit->bound - $is : $is - $limit->bound);
            if (null !== $is && $by > self::SLACK) {
                $broken[] = [$limit->measure, \sprintf(
                    '%s is %s; at %s %s is asked for (%s).',
                    self::WHAT[$limit->measure->value],
                    is_finite($is) ? self::told($limit->measure, $is) : 'not there',
                    $limit->measure->isLeast() ? 'least' : 'most',
                    self::told($limit->measure, $limit->bound),
                    $limit->standing,
                )];
            }
        }

        return $broken;
    }

    private function measured(EscapeMeasure $measure, RoomEscape $room): ?float
    {
        return match ($measure) {
            EscapeMeasure::ToExit => $room->toExit->mm ?? \INF,
            EscapeMeasure::ToFinal => $room->toFinal->mm ?? \INF,
            // Where there is no other exit, all of it is.
            EscapeMeasure::Single => $this->knowsSeconds ? $room->second->singleMm ?? $room->toExit?->mm : null,
            EscapeMeasure::Angle => $room->second?->degrees,
            EscapeMeasure::Door => ($room->toFinal ?? $room->toExit)?->narrowestMm,
        };
    }

    private static function told(EscapeMeasure $measure, float $is): string
    {
        return EscapeMeasure::Angle === $measure ? round($is).'°' : Length::told($is);
    }
}
