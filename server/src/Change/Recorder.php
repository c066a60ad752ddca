<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Http\Refusal;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Uid\Uuid;

/**
 * Makes changes: one per user action, one transaction. Rows, what follows from them, the project's next revision and
 * the history entry are written together or not at all.
 *
 * @phpstan-import-type Touch from Change
 */
final readonly class Recorder
{
    private const RESERVE_BYTES = 64e6;

    /** @var list<Follower> the lowest place first */
    private array $followers;

    /**
     * @param iterable<Follower> $followers
     * @param iterable<Aftermath> $aftermath
     */
    public function __construct(
        private EntityManagerInterface $entities,
        private Kinds $kinds,
        #[AutowireIterator(Follower::class)] iterable $followers,
        #[AutowireIterator(Aftermath::class)] private iterable $aftermath,
        private ClockInterface $clock,
        private Gate $gate,
        private Deadline $deadline,
        private DiskSpace $disk,
        private string $filesDir,
    ) {
        $all = [...$followers];
        usort($all, static fn (Follower $a, Follower $b): int => $a::place() <=> $b::place());
        $this->followers = $all;
    }

    /**
     * @param Uuid $changeId made by the client; the same id again is answered with the first change
     * @param callable(Workspace): void $act does the work
     * @param \DateTimeImmutable|null $at when it was done; now unless it was done elsewhere before
     */
    public function record(
        Uuid $project,
        User $user,
        Uuid $changeId,
        string $title,
        callable $act,
        Occasion $occasion = Occasion::Work,
        ChangeState $state = ChangeState::Done,
        ?\DateTimeImmutable $at = null,
    ): Change {
        return $this->inTransaction($project, $user, function (Revised $locked) use ($user, $changeId, $title, $act, $occasion, $state, $at): Change {
            $known = $this->known($locked, $user, $changeId, false);
            if (null !== $known) {
                return $known;
            }
            $workspace = new Workspace($this->entities, $this->kinds, $locked->id());
            $act($workspace);
            $this->follow($workspace, $occasion);
            foreach ($this->mine($locked, $user, ChangeState::Undone, 'DESC') as $undone) {
                $undone->turn(ChangeState::Left);
            }

            $change = $this->write($locked, $user, $changeId, $title, $workspace, null, $at);
            $change->turn($state);

            return $change;
        });
    }

    /**
     * Makes a change and takes it back at once.
     *
     * @template T
     *
     * @param callable(Workspace): void $act
     * @param callable(Workspace): T $tell what is asked of it in between
     *
     * @return T
     */
    public function attempt(Uuid $project, User $user, callable $act, callable $tell, Occasion $occasion = Occasion::Work): mixed
    {
        $connection = $this->entities->getConnection();
        $connection->beginTransaction();
        try {
            $locked = $this->gate->lock($project, $user);
            $workspace = new Workspace($this->entities, $this->kinds, $locked->id());
            $act($workspace);
            $this->follow($workspace, $occasion);
            $workspace->flush();

            return $tell($workspace);
        } finally {
            $connection->rollBack();
            $this->entities->clear();
        }
    }

    /**
     * Takes back the user's own latest change, unless somebody has changed its rows since.
     *
     * @param Uuid|null $expected the change that its author was told would be taken back
     */
    public function undo(Uuid $project, User $user, Uuid $changeId, ?Uuid $expected = null): Change
    {
        return $this->step($project, $user, $changeId, $expected, ChangeState::Done, 'Undo');
    }

    /** Does again what the user took back last. */
    public function redo(Uuid $project, User $user, Uuid $changeId, ?Uuid $expected = null): Change
    {
        return $this->step($project, $user, $changeId, $expected, ChangeState::Undone, 'Redo');
    }

    private function step(Uuid $project, User $user, Uuid $changeId, ?Uuid $expected, ChangeState $from, string $word): Change
    {
        return $this->inTransaction($project, $user, function (Revised $locked) use ($user, $changeId, $expected, $from, $word): Change {
            $known = $this->known($locked, $user, $changeId, true);
            if (null !== $known) {
                return $known;
            }
            $back = ChangeState::Done === $from;
            $target = $this->mine($locked, $user, $from, $back ? 'DESC' : 'ASC', 1)[0] ?? throw Refusal::conflict(
                'nothing-left',
                $back ? 'There is nothing of yours left to undo.' : 'There is nothing to redo.',
            );
            if (null !== $expected && !$expected->equals($target->id())) {
                throw Refusal::conflict(
                    'other-step',
                    \sprintf(
                        'Your latest change is another by now (“%s”): look at what would be %s, and ask again.',
                        $target->title(),
                        $back ? 'undone' : 'done again',
                    ),
                    'target',
                );
            }
            $workspace = new Workspace($this->entities, $this->kinds, $locked->id());
            $this->replay($workspace, $target->touches(), $back, $target->title());
            $this->follow($workspace, Occasion::Replay);
            $target->turn($back ? ChangeState::Undone : ChangeState::Done);

            return $this->write($locked, $user, $changeId, $word.': '.$target->title(), $workspace, $target->id());
        });
    }

    /** The change that was made under this id before, of the same user and kind. */
    private function known(Revised $project, User $user, Uuid $changeId, bool $isStep): ?Change
    {
        $known = $this->entities->find(Change::class, (new RowId($project->id(), $changeId))->criteria());
        if (null !== $known && !($known->isBy($user->id()) && $isStep === (null !== $known->target()))) {
            throw Refusal::conflict('id-taken', 'This change id is in use already: make a new one.', 'id');
        }

        return $known;
    }

    private function follow(Workspace $workspace, Occasion $occasion): void
    {
        foreach ($this->followers as $follower) {
            $follower->follow($workspace, $occasion);
        }
    }

    /** @param list<Touch> $touches */
    private function replay(Workspace $workspace, array $touches, bool $back, string $title): void
    {
        $order = array_flip(array_keys($this->kinds->classes));
        // What others refer to comes first when rows appear, last when they go; going back, the last touched comes first.
        $touches = $back ? array_reverse($touches) : $touches;
        usort($touches, static fn (array $a, array $b): int => $order[$a['type']] <=> $order[$b['type']]);
        foreach ($this->kinds->classes as $name => $class) {
            $ids = array_map(
                static fn (array $t): Uuid => Uuid::fromString($t['id']),
                array_values(array_filter($touches, static fn (array $t): bool => $t['type'] === $name)),
            );
            if (\count($ids) > 1) {
                $workspace->prepareRemoval($class, $ids);
            }
        }
        $changed = [];
        foreach ($touches as $touch) {
            $row = $workspace->find($this->kinds->named($touch['type']), Uuid::fromString($touch['id']));
            if (!self::same($row?->values(), $back ? $touch['after'] : $touch['before'])) {
                $changed[] = $row?->describe() ?? ['type' => $touch['type'], 'id' => $touch['id']];
            }
        }
        if ([] !== $changed) {
            throw Refusal::conflict(
                'changed-since',
                \sprintf('“%s” cannot be taken back or done again: somebody has changed the same things since.', $title),
                '',
                ['rows' => $changed],
            );
        }
        foreach ($touches as $touch) {
            $to = $back ? $touch['before'] : $touch['after'];
            $class = $this->kinds->named($touch['type']);
            $row = $workspace->find($class, Uuid::fromString($touch['id']));
            if (null === $row && null !== $to) {
                $workspace->add($class, Uuid::fromString($touch['id']), $to, $touch['id']);
            }
        }
        foreach ($touches as $touch) {
            $to = $back ? $touch['before'] : $touch['after'];
            $row = $workspace->find($this->kinds->named($touch['type']), Uuid::fromString($touch['id']));
            if (null !== $row && null !== $to) {
                $workspace->set($row, $to, $touch['id']);
            }
        }
        foreach (array_reverse($touches) as $touch) {
            $row = $workspace->find($this->kinds->named($touch['type']), Uuid::fromString($touch['id']));
            if (null === ($back ? $touch['before'] : $touch['after']) && null !== $row) {
                $workspace->remove($row, $touch['id']);
            }
        }
    }

    /**
     * JSON in the database keeps 5.0 as 5, so numbers compare by value.
     *
     * @param array<string, scalar|null>|null $a
     * @param array<string, scalar|null>|null $b
     */
    private static function same(?array $a, ?array $b): bool
    {
        if (null === $a || null === $b) {
            return $a === $b;
        }
        foreach ($a as $key => $value) {
            if (!\array_key_exists($key, $b)) {
                continue; // a value that the history is too old to know
            }
            $other = $b[$key];
            if (\is_float($value) && (\is_int($other) || \is_float($other)) ? $value !== (float) $other : $value !== $other) {
                return false;
            }
        }

        return true;
    }

    private function write(Revised $project, User $user, Uuid $changeId, string $title, Workspace $workspace, ?Uuid $target, ?\DateTimeImmutable $at = null): Change
    {
        $touches = $workspace->touches();
        $revision = $project->advance();
        foreach ($touches as $touch) {
            $this->deadline->check();
            $workspace->find($this->kinds->named($touch['type']), Uuid::fromString($touch['id']))?->touchedAt($revision);
        }
        $change = new Change($project->id(), $changeId, $revision, $user->id(), $title, $touches, $at ?? $this->clock->now(), $target);
        $this->entities->persist($change);
        $this->entities->flush();
        $workspace->flush();
        foreach ($this->aftermath as $aftermath) {
            $aftermath->after($workspace, $revision);
        }

        return $change;
    }

    /**
     * @param 'ASC'|'DESC' $order
     *
     * @return list<Change>
     */
    private function mine(Revised $project, User $user, ChangeState $state, string $order, ?int $most = null): array
    {
        return $this->entities->getRepository(Change::class)->findBy(
            ['project' => $project->id(), 'user' => $user->id(), 'state' => $state],
            ['revision' => $order],
            $most,
        );
    }

    /**
     * @param callable(Revised): Change $work
     */
    private function inTransaction(Uuid $project, User $user, callable $work): Change
    {
        // What is left is the database's, to finish what it has begun.
        if ($this->disk->free($this->filesDir) < self::RESERVE_BYTES) {
            throw Refusal::noRoomForChanges();
        }

        return $this->entities->wrapInTransaction(function () use ($project, $user, $work): Change {
            return $work($this->gate->lock($project, $user));
        });
    }
}
