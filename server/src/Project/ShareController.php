<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Account\Accounts;
use Plinth\Server\Account\EmailAddress;
use Plinth\Server\Account\User;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** With whom a project is shared, to read or to edit. */
#[Route('/api/projects/{project}/shares')]
final readonly class ShareController
{
    private const MOST_SHARES = 200;

    public function __construct(private ProjectAccess $access, private Accounts $accounts, private EntityManagerInterface $entities)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function list(Uuid $project): Response
    {
        $shares = $this->entities->getRepository(ProjectShare::class)->findBy(['project' => $project]);
        // Read at once, to be found one by one.
        $this->entities->getRepository(User::class)->findBy(['id' => array_map(static fn (ProjectShare $s): Uuid => $s->user(), $shares)]);

        return new JsonResponse(['shares' => array_map(fn (ProjectShare $s): array => $this->told($s), $shares)]);
    }

    #[Needs(Who::Owner)]
    #[Route('', methods: ['PUT'])]
    public function share(Uuid $project, Request $request): Response
    {
        $row = $this->access->project($project);
        $body = JsonValue::parse($request->getContent())->object(['email', 'role']);
        $role = $body->get('role')->choice(Role::class);
        if (Role::Owner === $role) {
            throw Refusal::invalid('one-owner', 'A project has one owner: share it to read or to edit.', 'role');
        }
        $email = $body->get('email')->text(EmailAddress::LONGEST);
        $user = $this->accounts->by($email) ?? throw Refusal::invalid(
            'no-account',
            \sprintf('Nobody has an account with the e-mail %s here: have one created, or check how it is written.', $email),
            'email',
        );
        if ($row->belongsTo($user)) {
            throw Refusal::invalid('one-owner', 'This project is yours already.', 'email');
        }
        $share = $this->entities->find(ProjectShare::class, ['project' => $project, 'user' => $user->id()]);
        if (null === $share) {
            if ($this->entities->getRepository(ProjectShare::class)->count(['project' => $project]) >= self::MOST_SHARES) {
                throw Refusal::tooMuch(
                    \sprintf(
                        'This project is shared with %d people, which is as many as may be. End a share that is not needed any more.',
                        self::MOST_SHARES,
                    ),
                    'email',
                );
            }
            $share = new ProjectShare($project, $user->id(), $role);
            $this->entities->persist($share);
        }
        $share->becomes($role);
        $this->entities->flush();

        return $this->list($project);
    }

    /** Its owner takes it back, or somebody leaves it. */
    #[Needs(Who::Reader)]
    #[Route('/{user}', methods: ['DELETE'])]
    public function end(Uuid $project, Uuid $user): Response
    {
        if (!$this->access->user()->id()->equals($user) && Role::Owner !== $this->access->role($this->access->project($project))) {
            throw Refusal::ownerOnly();
        }
        $share = $this->entities->find(ProjectShare::class, ['project' => $project, 'user' => $user]) ?? throw Refusal::notFound();
        $this->entities->remove($share);
        $this->entities->flush();

        return new Response('', 204);
    }

    /** @return array{id: string, name: string, email: string, role: string} */
    private function told(ProjectShare $share): array
    {
        $user = $this->entities->find(User::class, $share->user());

        return [
            'id' => $share->user()->toRfc4122(),
            'name' => $user?->name() ?? '',
            'email' => $user?->getUserIdentifier() ?? '',
            'role' => $share->role()->value,
        ];
    }
}
