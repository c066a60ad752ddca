<?php

declare(strict_types=1);

namespace Plinth\Core\Site\Exception;

use Plinth\Core\Fault\Fault;
use Plinth\Core\Units\Length;

/** Legs that make no boundary; `at` names the leg concerned, such as `legs/2`. */
final class UnusableBoundary extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function tooFewLegs(int $count): self
    {
        return new self(\sprintf('A boundary needs at least three legs, not %d.', $count), 'legs');
    }

    public static function legWithoutLength(int $leg): self
    {
        return new self(\sprintf('Leg %d must be longer than zero.', $leg + 1), "legs/$leg");
    }

    public static function doesNotClose(float $missingMm, float $lengthMm): self
    {
        return new self(
            \sprintf(
                'The boundary misses its beginning by %s in %s (1 : %.0f): a leg is missing, or a length or bearing is mistyped.',
                Length::told($missingMm),
                Length::told($lengthMm),
                $lengthMm / $missingMm,
            ),
            'legs',
        );
    }

    public static function crossesItself(int $one, int $other): self
    {
        return new self(\sprintf('Leg %d crosses leg %d: look at their bearings and their order.', $one + 1, $other + 1), "legs/$other");
    }

    public function why(): string
    {
        return 'unusable-boundary';
    }

    public function at(): string
    {
        return $this->at;
    }
}
