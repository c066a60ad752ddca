<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Account\User;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Write;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** With whom a project is shared, to read or to edit. */
#[Route('/api/projects/{id}/shares')]
final readonly class ShareController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities)
    {
    }

    #[Route('', methods: ['GET'])]
    public function list(Uuid $id): Response
    {
        $project = $this->access->project($id);
        $shares = $this->entities->getRepository(ProjectShare::class)->findBy(['project' => $project->id()]);

        return new JsonResponse(['shares' => array_map(fn (ProjectShare $s): array => $this->told($s), $shares)]);
    }

    #[Write]
    #[Route('', methods: ['PUT'])]
    public function share(Uuid $id, Request $request): Response
    {
        $project = $this->owned($id);
        $body = JsonValue::parse($request->getContent())->object(['email', 'role']);
        $role = $body->get('role')->choice(Role::class);
        if (Role::Owner === $role) {
            throw Refusal::invalid('one-owner', 'A project has one owner: share it to read or to edit.', 'role');
        }
        $email = trim($body->get('email')->text(180));
        $user = $this->entities->getRepository(User::class)->findOneBy(['email' => $email]) ?? throw Refusal::invalid('no-account', \sprintf('Nobody has an account with the e-mail %s here: have one created, or check how it is written.', $email), 'email');
        if ($project->belongsTo($user)) {
            throw Refusal::invalid('one-owner', 'This project is yours already.', 'email');
        }
        $share = $this->entities->find(ProjectShare::class, ['project' => $project->id(), 'user' => $user->id()]);
        if (null === $share) {
            $share = new ProjectShare($project->id(), $user->id(), $role);
            $this->entities->persist($share);
        }
        $share->becomes($role);
        $this->entities->flush();

        return $this->list($id);
    }

    /** Its owner takes it back, or somebody leaves it. */
    #[Write]
    #[Route('/{user}', methods: ['DELETE'])]
    public function end(Uuid $id, Uuid $user): Response
    {
        $project = $this->access->user()->id()->equals($user) ? $this->access->project($id) : $this->owned($id);
        $share = $this->entities->find(ProjectShare::class, ['project' => $project->id(), 'user' => $user]) ?? throw Refusal::notFound();
        $this->entities->remove($share);
        $this->entities->flush();

        return new Response('', 204);
    }

    private function owned(Uuid $id): Project
    {
        $project = $this->access->project($id);

        return Role::Owner === $this->access->role($project) ? $project : throw Refusal::ownerOnly();
    }

    /** @return array{id: string, name: string, email: string, role: string} */
    private function told(ProjectShare $share): array
    {
        $user = $this->entities->find(User::class, $share->user());

        return ['id' => $share->user()->toRfc4122(), 'name' => $user?->name() ?? '', 'email' => $user?->getUserIdentifier() ?? '', 'role' => $share->role()->value];
    }
}
