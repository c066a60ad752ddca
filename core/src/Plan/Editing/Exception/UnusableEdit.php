<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing\Exception;

use Plinth\Core\Fault\Fault;

/** An edit of walls that cannot be made as asked. */
final class UnusableEdit extends \RuntimeException implements Fault
{
    private function __construct(private readonly string $why, string $message)
    {
        parent::__construct($message);
    }

    public static function notParallel(float $degrees): self
    {
        return new self(
            'not-parallel',
            \sprintf(
                'These two faces are %.1f° out of parallel, so there is no one distance between them: choose faces that run the same way.',
                $degrees,
            ),
        );
    }

    public static function curved(): self
    {
        return new self('curved', 'A distance runs between straight walls: one of these is curved.');
    }

    public static function same(): self
    {
        return new self('same-wall', 'Both are faces of one wall: type its thickness instead.');
    }

    public static function sameTwice(): self
    {
        return new self('same-wall', 'Both are one wall: choose the one that lies on it.');
    }

    public static function wouldVanish(string $what): self
    {
        return new self('would-vanish', \sprintf('%s would have no length left: take a smaller step, or remove it.', $what));
    }

    public static function neverMeet(): self
    {
        return new self('never-meet', 'These two walls run the same way and never meet: choose another wall to end at.');
    }

    public static function endsThere(): self
    {
        return new self('ends-there', 'This wall ends on the other one’s line already.');
    }

    public static function offWall(): self
    {
        return new self('off-wall', 'That place does not lie between the ends of the wall.');
    }

    public static function onlyStraightOn(): self
    {
        return new self(
            'not-straight-on',
            'Only two walls that go straight on into each other become one: these meet at an angle, or others meet them there.',
        );
    }

    public static function bothHeld(): self
    {
        return new self(
            'both-held',
            'Moving one of these faces moves the other along with it, so their distance cannot change: '
            .'choose which walls are joined first.',
        );
    }

    public function why(): string
    {
        return $this->why;
    }

    public function at(): string
    {
        return '';
    }
}
