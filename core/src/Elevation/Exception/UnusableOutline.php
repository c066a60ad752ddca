<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation\Exception;

use Plinth\Core\Fault\Fault;

/** Corners that enclose nothing; `at` names the corner concerned, such as `corners/2`. */
final class UnusableOutline extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function tooFewCorners(int $count): self
    {
        return new self(\sprintf('An outline needs at least three corners, not %d.', $count), 'corners');
    }

    public static function crossesItself(int $one, int $other): self
    {
        return new self(
            \sprintf('Edge %d of the outline crosses edge %d: take the last corners back.', $one + 1, $other + 1),
            "corners/$other",
        );
    }

    public function why(): string
    {
        return 'unusable-outline';
    }

    public function at(): string
    {
        return $this->at;
    }
}
