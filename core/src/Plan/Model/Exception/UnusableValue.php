<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model\Exception;

use Plinth\Core\Fault\Fault;

/** A measure or a place that nothing of a plan can have. */
final class UnusableValue extends \DomainException implements Fault
{
    private function __construct(private readonly string $at, string $message)
    {
        parent::__construct($message);
    }

    /** @param string $at the thing and its value, as wall w1/thickness */
    public static function outOfRange(string $at, float $value, string $wanted): self
    {
        return new self($at, \sprintf('%s is %s: it has to be %s.', $at, $value, $wanted));
    }

    public static function malformed(string $at, string $text, string $wanted): self
    {
        return new self($at, \sprintf('%s is “%s”: it has to be %s.', $at, $text, $wanted));
    }

    public function why(): string
    {
        return 'unusable-value';
    }

    public function at(): string
    {
        return $this->at;
    }
}
