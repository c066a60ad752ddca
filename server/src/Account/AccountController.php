<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Http\ErrorAnswer;
use Plinth\Server\Http\Write;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Event\LogoutEvent;

final readonly class AccountController
{
    public const DEMO_EMAIL = 'demo@plinth.example';

    public function __construct(private Security $security, private EntityManagerInterface $entities, private bool $demo)
    {
    }

    #[Route('/api/account', name: 'api_account', methods: ['GET'])]
    public function account(): Response
    {
        $user = $this->security->getUser();

        return new JsonResponse([
            'account' => $user instanceof User ? self::describe($user) : null,
            'demo' => $this->demo,
        ]);
    }

    #[Route('/api/sign-in', name: 'api_sign_in', methods: ['POST'])]
    public function signIn(): Response
    {
        return ErrorAnswer::of(400, 'not-json', 'Send e-mail and password as JSON.');
    }

    #[Write]
    #[Route('/api/demo-sign-in', name: 'api_demo_sign_in', methods: ['POST'])]
    public function demoSignIn(): Response
    {
        $user = $this->demo ? $this->entities->getRepository(User::class)->findOneBy(['email' => self::DEMO_EMAIL]) : null;
        if (null === $user) {
            return ErrorAnswer::of(404, 'no-demo', 'This installation has no demo account. Sign in with your own.');
        }
        $this->security->login($user, 'json_login', 'main');

        return new JsonResponse(['account' => self::describe($user)]);
    }

    #[Route('/api/sign-out', name: 'api_sign_out', methods: ['POST'])]
    public function signOut(): never
    {
        throw new \LogicException('The firewall answers this route.');
    }

    #[AsEventListener]
    public function onSignOut(LogoutEvent $event): void
    {
        $event->setResponse(new Response(status: 204));
    }

    #[Route('/api/health', methods: ['GET'])]
    public function health(): Response
    {
        return new JsonResponse(['well' => '1' === $this->entities->getConnection()->executeQuery("SELECT '1'")->fetchOne()]);
    }

    /** @return array{id: string, name: string, email: string} */
    private static function describe(User $user): array
    {
        return ['id' => $user->id()->toRfc4122(), 'name' => $user->name(), 'email' => $user->getUserIdentifier()];
    }
}
