<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Exception;

use Plinth\Core\Fault\Fault;

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

    public static function isTooSmall(): self
    {
        return new self('What is to be put on the sheet does not fit: take larger paper, turn it, or a smaller scale.', 'scale');
    }

    public static function enclosesNothing(): self
    {
        return new self('Nothing is enclosed on any storey: mark what is of a class of fire resistance first.', 'part');
    }

    public static function showsWhatIsGone(): self
    {
        return new self('A view of this sheet shows a storey, side or picture that is not there any more: take the view away.', 'of');
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
