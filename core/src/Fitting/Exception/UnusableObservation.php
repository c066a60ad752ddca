<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

use Plinth\Core\Fitting\Pick;

final class UnusableObservation extends \DomainException implements FittingException
{
    /** Picks nearer than this carry no direction: two hand picks on one spot scatter by about as much. */
    public const APART_PX = 1.0;

    private function __construct(string $message, private readonly string $reason, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function coincidentPicks(string $list, int $index, float $apartPx): self
    {
        return new self(\sprintf('Both picks lie on the same spot (%.2f px apart): pick the two ends at least %g px apart.', $apartPx, self::APART_PX), 'coincident-picks', "$list/$index");
    }

    public static function lengthNotPositive(int $index, float $mm): self
    {
        return new self(\sprintf('A known length must be longer than zero, not %g mm.', $mm), 'length-not-positive', "lengths/$index");
    }

    public static function badSigma(int $index): self
    {
        return new self('The standard deviation of a length must be a number of millimetres, zero or more.', 'bad-sigma', "lengths/$index");
    }

    public static function badPick(Pick $pick): self
    {
        return new self(\sprintf('Pick %s needs finite coordinates and a standard deviation above zero.', $pick->id), 'bad-pick', '');
    }

    public static function missingPick(string $id): self
    {
        return new self(\sprintf('Pick %s is named but not given.', $id), 'missing-pick', '');
    }

    public function reason(): string
    {
        return $this->reason;
    }

    public function at(): string
    {
        return $this->at;
    }
}
