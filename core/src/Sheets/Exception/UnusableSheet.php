<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Exception;

use Plinth\Core\Fault\Fault;
use Plinth\Core\Sheets\PaperSize;

/** What cannot be put on a sheet. */
final class UnusableSheet extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function isEmpty(): self
    {
        return new self('There are no walls on this storey to be drawn: trace some first.', 'storey');
    }

    public static function isTooSmall(PaperSize $paper, int $scale): self
    {
        return new self(
            \sprintf(
                'The plan and its dimensions do not fit on %s at 1:%d: take larger paper, turn it, or a smaller scale.',
                $paper->value,
                $scale,
            ),
            'scale',
        );
    }

    public function why(): string
    {
        return 'unusable-sheet';
    }

    public function at(): string
    {
        return $this->at;
    }
}
