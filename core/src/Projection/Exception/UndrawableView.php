<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Exception;

use Plinth\Core\Fault\Fault;

/** A view that nothing can be drawn of. */
final class UndrawableView extends \InvalidArgumentException implements Fault
{
    private function __construct(private readonly string $why, string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function withoutLine(): self
    {
        return new self('view-line', 'It is looked at square to a line between two places at least 1 mm apart.', 'line');
    }

    public static function withoutDepth(): self
    {
        return new self('view-depth', 'What is shown lies some way behind the line: its depth is more than zero.', 'depth');
    }

    /** @param int $number of the stretch that does not fit */
    public static function jogged(int $number): self
    {
        return new self(
            'view-jog',
            \sprintf('Stretch %d of the cutting line runs neither alongside the first one from left to right nor square to it.', $number),
            'line/'.$number,
        );
    }

    public function why(): string
    {
        return $this->why;
    }

    public function at(): string
    {
        return $this->at;
    }
}
