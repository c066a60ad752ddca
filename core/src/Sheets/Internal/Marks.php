<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\Model\ViewMark;
use Plinth\Core\Sheets\SheetInk;

/**
 * What somebody has moved or left out of a view: dimensions, and signs like stamps, numbers, levels, axes, section marks.
 *
 * @internal
 */
final readonly class Marks
{
    /** @var array<string, ViewMark> */
    private array $marks;

    /** @param list<ViewMark> $marks */
    public function __construct(array $marks)
    {
        $this->marks = array_combine(array_map(static fn (ViewMark $m): string => $m->of, $marks), $marks);
    }

    /** @param string $key of what it says, which stays the same when the plan is edited */
    public function of(string $key): ?ViewMark
    {
        return $this->marks[$key] ?? null;
    }

    public function isLeftOut(string $key): bool
    {
        return true === $this->of($key)?->hidden;
    }

    /**
     * @param callable(): SheetInk $find where it would stand by itself
     *
     * @return SheetInk where it was put, nothing where it is left out
     */
    public function put(string $key, callable $find): SheetInk
    {
        $mark = $this->of($key);

        return true === $mark?->hidden ? new SheetInk() : $find()->marked($key, $mark->dx ?? 0.0, $mark->dy ?? 0.0);
    }

    /**
     * What stands on a line, and is moved along it alone: elsewhere it would say something else.
     *
     * @param array{float, float} $along a unit vector, mm of paper
     */
    public function along(string $key, array $along): float
    {
        $mark = $this->of($key);

        return ($mark->dx ?? 0.0) * $along[0] + ($mark->dy ?? 0.0) * $along[1];
    }
}
