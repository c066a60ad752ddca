<?php

declare(strict_types=1);

namespace Plinth\Core\Sweeping\Exception;

use Plinth\Core\Fault\Fault;
use Plinth\Core\Geometry\Point;

/** A profile that cannot be taken along its path; `at` names the corner of the path concerned. */
final class UnbuildableSweep extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function hasNoPath(): self
    {
        return new self('There is nothing to take the profile along yet: trace walls, or choose another path.', 'path');
    }

    public static function hasNoProfile(): self
    {
        return new self('The profile encloses nothing or crosses itself: draw it anew.', 'profile');
    }

    public static function turnsBack(int $corner, Point $at): self
    {
        return new self(
            \sprintf('The path turns back on itself at %.0f, %.0f: no mitre is that sharp.', $at->x, $at->y),
            "path/$corner",
        );
    }

    public static function hasNoRoom(int $corner, Point $at): self
    {
        return new self(
            \sprintf(
                'The profile is too wide for the corner at %.0f, %.0f: draw it narrower, or let it point the other way.',
                $at->x,
                $at->y,
            ),
            "path/$corner",
        );
    }

    public static function runsIntoItself(): self
    {
        return new self(
            'The profile runs into itself where the path comes near to where it was: draw it narrower, or the path wider.',
            'path',
        );
    }

    public static function tooManyFaces(int $most): self
    {
        return new self(\sprintf('That makes more than %d faces: draw the profile or the path with fewer corners.', $most), 'profile');
    }

    public function why(): string
    {
        return 'unbuildable-sweep';
    }

    public function at(): string
    {
        return $this->at;
    }
}
