<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;

/** A trued drawing that is locked stays where it is: nothing said about it, cut of it or turned moves it. */
final readonly class Lock
{
    private const MOVES = ['left', 'top', 'width', 'height', 'turns', 'model', 'ownFactor', 'statedScale', 'statedPaper', 'storey', 'side'];

    /** Locked before this change, and not opened by it. On a newer page it has come along already, and lies where it lay. */
    public static function holds(Workspace $workspace, Drawing $drawing): bool
    {
        $before = self::before($workspace, $drawing);

        return $drawing->isLocked() && (null === $before || true === ($before['locked'] ?? false));
    }

    public static function refuseMoving(Workspace $workspace, Drawing $drawing): void
    {
        $before = self::before($workspace, $drawing);
        $keys = array_flip(self::MOVES);
        if (
            null !== $before
            && !self::isOnAnotherPage($before, $drawing)
            && true === ($before['locked'] ?? false)
            && $drawing->isLocked()
            && array_intersect_key($before, $keys) !== array_intersect_key($drawing->values(), $keys)
        ) {
            throw self::refusal($drawing);
        }
    }

    /** Only what is said about the drawing itself is refused; what is said of the whole page just does not move it. */
    public static function refuseStating(Workspace $workspace, Drawing $drawing): void
    {
        if (self::isOnAnotherPage(self::before($workspace, $drawing) ?? [], $drawing)) {
            return;
        }
        $id = $drawing->id()->toRfc4122();
        foreach ($workspace->before() as [$class, $rowId, $before]) {
            $row = $workspace->find($class, $rowId);
            if (
                is_subclass_of($class, Statement::class)
                && ($id === ($before['drawing'] ?? null) || ($row instanceof Statement && $row->drawing()->toRfc4122() === $id))
            ) {
                throw self::refusal($drawing);
            }
        }
    }

    /** @param array<string, scalar|null> $before */
    private static function isOnAnotherPage(array $before, Drawing $drawing): bool
    {
        return isset($before['page']) && $before['page'] !== $drawing->page()->toRfc4122();
    }

    /** @return array<string, scalar|null>|null */
    private static function before(Workspace $workspace, Drawing $drawing): ?array
    {
        return $workspace->was(Drawing::class, $drawing->id());
    }

    private static function refusal(Drawing $drawing): Refusal
    {
        return Refusal::conflict(
            'locked',
            'This drawing is locked, so nothing moves it. Unlock it first.',
            'drawing',
            ['drawing' => $drawing->id()->toRfc4122()],
        );
    }
}
